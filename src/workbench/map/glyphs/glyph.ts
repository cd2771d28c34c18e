/** What a strand's end looks like. */
import type { ReactNode } from 'react';
import type { RunState } from '../../../core/modes/entity';
import type { Role } from '../../../core/tree/settled';
import type { CourseEnd } from '../run';

/** What is known of an end in one tree. */
export interface EndState {
  readonly role: Role;
  /** Designated, and it discards all the same: the other end is designated too. */
  readonly disputed: boolean;
  /** At an instant of a run; undefined where the network has settled. */
  readonly state?: RunState | undefined;
}

export interface Drawn extends EndState {
  readonly end: CourseEnd;
  readonly colour: string;
  /** Of the strand. */
  readonly width: number;
}

/** How the legend shows a glyph: an end at which it stands, and what it means there. */
export interface GlyphSign {
  readonly at: EndState;
  readonly says: string;
}

export interface Glyph {
  /** Whether it stands at such an end; the first glyph that says so does. */
  shows(end: EndState): boolean;
  /** How far from the box the strand itself begins, so that the glyph has its place; map units. */
  readonly trim: number;
  draw(drawn: Drawn): ReactNode;
  readonly signs: readonly GlyphSign[];
}
