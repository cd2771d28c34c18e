/** What a picture of the map is made of. */
import type { Filled } from '../../../core/analysis/groups/groups';
import type { Design } from '../../../core/model/document';
import type { SwitchId, TreeId } from '../../../core/model/ids';
import type { RunState } from '../../../core/modes/entity';
import type { Solution } from '../../../core/tree/settled';

/** What a picture shows. */
export interface PictureOf {
  readonly design: Design;
  readonly solution: Solution | null;
  /** An instant of a run, in the place of what it settles to. */
  readonly instant?: {
    readonly picture: Solution;
    readonly state: (tree: number, port: number) => RunState;
    readonly isHeld: (tree: number, port: number) => boolean;
  };
  /** Bundles are what it is about. */
  readonly bundling?: boolean;
  /** Trees side by side; none where it is about cables. */
  readonly trees: readonly TreeId[];
  /** By switch, the folded group that stands for it; and the groups drawn open. */
  readonly stands: ReadonlyMap<SwitchId, Filled>;
  readonly open: readonly Filled[];
  /** Places of boxes, in map units; where they are not given, those of the design. */
  readonly places?: ReadonlyMap<SwitchId, { readonly x: number; readonly y: number }>;
  /** Pixels for a map unit. */
  readonly scale: number;
  /** The part in view, pixels at this scale; the whole where it is not given. */
  readonly view?: Frame;
  readonly title: string;
  /** Rules that give the colours, and fonts as `@font-face`. */
  readonly css: string;
}

export interface Frame {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}
