/** What the map draws: boxes of switches, lines of links, and what of a design decides where they go. Pixels of the screen but for positions, which are in map units. */
import type { LinkId, PortId, SwitchId } from '../../core/model/ids';
import type { Point } from '../state/align';
import type { Design } from '../../core/model/document';

export type { Point };
export type Side = 'left' | 'right' | 'top' | 'bottom';

/** Where a port's cable meets its switch's box. */
export interface Attachment {
  readonly port: PortId;
  readonly side: Side;
  /** Distance from the box's top left corner. */
  readonly at: Point;
  /** To the next one on this side, at least. */
  readonly room: number;
}

export interface Box {
  readonly id: SwitchId;
  readonly centre: Point;
  readonly width: number;
  readonly height: number;
  readonly attachments: readonly Attachment[];
  /** On which side the hosts are listed, how many rows there is room for, and how wide they are. */
  readonly hostSide: 'top' | 'bottom';
  readonly hosts: { readonly rows: number; readonly width: number };
  /** Room kept free for port labels at the top and the bottom, and at either side. */
  readonly rims: { readonly top: number; readonly bottom: number };
  readonly beside: number;
  /** On which sides ports are labelled. */
  readonly labels: Readonly<Record<Side, boolean>>;
  /** How wide its name may be. */
  readonly nameWidth: number;
  /** The name, shortened where there is no room for the whole; null where there is none. */
  readonly name: string | null;
  /** The name is written smaller, to have more of it. */
  readonly tight: boolean;
  /** Whether root path costs stand under the name. */
  readonly figures: boolean;
  /** Of a folded group, how many rows about it stand under the name. */
  readonly rows: number;
}

/** What a layer of the map is given: the switches' boxes, and the links' lines. */
export interface LayerProps {
  readonly boxes: readonly Box[];
  readonly lines: readonly Line[];
}

/** A link as drawn: from point to point, over its bends. `loops` where both ends are on one switch. */
export interface Line {
  readonly link: LinkId;
  readonly from: Point;
  readonly to: Point;
  /** Where it bends to run around a box, on the way. */
  readonly bends: readonly Point[];
  readonly loops: boolean;
  /** Between strands that run side by side. */
  readonly gap: number;
}

/** What of a design decides where things go: an edit of anything else leaves the drawing in place. */
export interface Skeleton {
  readonly switches: readonly {
    readonly id: SwitchId;
    readonly name: string;
    readonly tier: Design['switches'][0]['tier'];
    readonly position: Point | undefined;
    /** How many switches a folded group has inside. */
    readonly inside?: number;
  }[];
  readonly links: Design['links'];
  readonly hosts: Design['hosts'];
}

/** The skeleton of a design; `before` itself where nothing in it has changed. */
export function skeletonOf({ switches, links, hosts }: Design, before: Skeleton | null): Skeleton {
  const same =
    before !== null &&
    before.links === links &&
    before.hosts === hosts &&
    before.switches.length === switches.length &&
    before.switches.every((old, i) => {
      const sw = switches[i]!;
      return (
        old.id === sw.id && old.name === (sw.name ?? sw.id) && old.tier === sw.tier && old.position === sw.position
      );
    });
  if (same) return before;
  return {
    switches: switches.map(({ id, name, tier, position }) => ({ id, name: name ?? id, tier, position })),
    links,
    hosts,
  };
}

export interface MapGeometry {
  readonly boxes: readonly Box[];
  readonly lines: readonly Line[];
}

/** How much is drawn: `strands` is the number side by side on each link, each with a figure under every name; `scale` the pixels of a map unit. `quick` while things move: links run straight, whatever they run across. */
export interface MapDensity {
  readonly strands: number;
  readonly scale?: number;
  readonly quick?: boolean;
  /** No box is taller, so that it stays in its band; pixels. */
  readonly tallest?: number;
}

/** Distance between strands that run side by side, where there is room. */
export const STRAND_GAP = 7;
