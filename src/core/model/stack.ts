/**
 * A stack: boxes cabled into one switch, with one bridge identifier and the ports of all. Standards know the one bridge alone;
 * how its boxes choose a master, and what they do when they lose each other, is common practice.
 */
import { z } from '../base/zod';
import { field } from './field';
import { BOX_PRIORITY, boxNumber, boxPriority, macAddress } from './legal';
import { MAX_BOXES } from './limits';

/** One of the boxes. */
export const boxSchema = z.strictObject({
  id: boxNumber,
  mac: field(macAddress, { label: 'MAC address', reads: 'trees' }),
  /** The highest is master; of several, the one with the lowest address. */
  masterPriority: field(boxPriority.default(BOX_PRIORITY.default), { label: 'priority to be master', reads: 'trees' }),
  /** False: without power. */
  up: field(z.boolean().default(true), {
    label: 'power',
    reads: 'trees',
    text: (up) => (up ? 'on' : 'off'),
    done: (up) => (up ? 'switched on' : 'switched off'),
  }),
  /** Whether its stack cable to the next box carries; the last one's leads to the first, in a ring. */
  cable: field(z.boolean().default(true), {
    label: 'stack cable to the next box',
    reads: 'trees',
    text: (carries) => (carries ? 'whole' : 'cut'),
    done: (carries) => (carries ? 'stack cable plugged in' : 'stack cable cut'),
  }),
});
export type Box = z.output<typeof boxSchema>;

const stackSchema = z.strictObject({
  /** False: a chain, without a cable from the last box to the first. */
  ring: z.boolean().default(true),
  /** Whether the address of the switch stays when the master is lost; else it is that of its master. */
  keepsAddress: z.boolean().default(true),
  boxes: z
    .array(boxSchema)
    .min(2, `at least 2 boxes; one alone is a switch`)
    .max(MAX_BOXES, `at most ${MAX_BOXES} boxes`)
    .superRefine((boxes, ctx) => {
      boxes.forEach(({ id }, i) => {
        if (boxes.findIndex((each) => each.id === id) < i)
          ctx.addIssue({ code: 'custom', path: [i, 'id'], message: 'each box once: another one has this number' });
      });
    }),
});
export type Stack = z.output<typeof stackSchema>;

/** `3 boxes in a ring, box 2 without power`. */
function stackText(stack: Stack | undefined): string {
  if (!stack) return 'none';
  const { boxes, ring, keepsAddress } = stack;
  const off = boxes.filter(({ up }) => !up).map(({ id }) => id);
  const cut = boxes.filter(({ cable }) => !cable).map(({ id }) => id);
  return [
    `${boxes.length} boxes in a ${ring ? 'ring' : 'chain'}`,
    `priorities ${boxes.map(({ masterPriority }) => masterPriority).join(', ')}`,
    ...(keepsAddress ? [] : ['address of its master']),
    ...(off.length > 0 ? [`without power: ${off.join(', ')}`] : []),
    ...(cut.length > 0 ? [`stack cable cut after ${cut.join(', ')}`] : []),
  ].join('; ');
}

export const stackField = field(stackSchema.optional(), {
  label: 'stack',
  reads: 'trees',
  absent: 'none',
  text: stackText,
  whole: true,
});

/** How the boxes of a stack stand. */
export interface StackState {
  /** Those that act as the switch; none where none has power. */
  readonly acting: readonly Box[];
  /** Null where none acts. */
  readonly master: Box | null;
  /** Those that have power, and have lost the others: their ports are down, so that no two switches have one identity. */
  readonly apart: readonly Box[];
}

/** Which of its boxes act: of those that still reach each other the most, of as many those with the box that comes first as master. */
export function stackState({ boxes, ring }: Stack): StackState {
  const parts: Box[][] = [];
  for (const [i, box] of boxes.entries()) {
    if (!box.up) continue;
    const before = boxes[i - 1];
    if (before?.up && before.cable) parts.at(-1)!.push(box);
    else parts.push([box]);
  }
  const [first, last] = [parts[0], parts.at(-1)];
  const closes = ring && boxes[0]!.up && boxes.at(-1)!.up && boxes.at(-1)!.cable;
  if (closes && first && last && first !== last) {
    first.unshift(...last);
    parts.pop();
  }
  const ranked = parts.map((part) => ({ part, master: part.toSorted(asMasters)[0]! }));
  const [acting] = ranked.sort((a, b) => b.part.length - a.part.length || asMasters(a.master, b.master));
  if (!acting) return { acting: [], master: null, apart: [] };
  return {
    acting: acting.part,
    master: acting.master,
    apart: boxes.filter((box) => box.up && !acting.part.includes(box)),
  };
}

/** The better master first. */
const asMasters = (a: Box, b: Box): number => b.masterPriority - a.masterPriority || (a.mac < b.mac ? -1 : 1);

/** The box that a port belongs to: where it says none, the first. */
export const boxOf = ({ boxes }: Stack, port: { readonly box?: number | undefined }): Box =>
  boxes.find(({ id }) => id === port.box) ?? boxes[0]!;
