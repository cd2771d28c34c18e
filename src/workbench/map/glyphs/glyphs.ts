/** The glyphs at the ends of strands: one line each; the first that fits an end stands there. */
import { arrow } from './arrow';
import { barredSquare } from './barredSquare';
import { collar } from './collar';
import { fillingCollar } from './fillingCollar';
import { fray } from './fray';
import type { EndState, Glyph } from './glyph';

export const GLYPHS: readonly Glyph[] = [fillingCollar, fray, arrow, collar, barredSquare];

export const glyphFor = (end: EndState): Glyph => GLYPHS.find((glyph) => glyph.shows(end)) ?? barredSquare;
