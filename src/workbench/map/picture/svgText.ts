/** A picture of the map as the text of an SVG file. */
import { createElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { Picture } from './Picture';
import type { PictureOf } from './pictureOf';

/** A whole SVG file. */
export const pictureText = (of: PictureOf): string =>
  `<?xml version="1.0" encoding="UTF-8"?>\n${renderToStaticMarkup(createElement(Picture, of))}\n`;

/** The custom properties that a picture needs, out of a style sheet's block for a scheme: a picture has no page around it. */
export const tokensFor = (sheet: string, scheme: 'light' | 'dark'): string => {
  const blockOf = (selector: string): string => sheet.split(`${selector} {`)[1]?.split('}')[0] ?? '';
  return `svg{${[blockOf(':root'), scheme === 'dark' ? blockOf('.dark') : ''].join('').replace(/\s*\n\s*/g, '')}}`;
};

/** The same for a page that holds pictures, in the light scheme: paper is. */
export const pageTokens = (sheet: string): string => `:root${tokensFor(sheet, 'light').slice('svg'.length)}`;
