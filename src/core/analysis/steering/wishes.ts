/** What an engineer wishes of the ends of links, whether it holds in a tree, and why it never can. */
import { treesName, type LinkId, type BridgePortId, type SwitchId } from '../../model/ids';
import type { Design } from '../../model/document';
import { fail, ok, type Result } from '../../base/result';
import { bridgePortOf, deadReason, type Network } from '../../topology/network';
import { label, switchName } from '../../tree/explain/phrases';
import { CODE, type SettledTree, forwards } from '../../tree/settled';
import { partsOf } from '../parts';
import { leadsOut } from './paths';

/** What an engineer points at: an end that should block, or a link that should carry a tree's frames. */
export type Wish =
  | { readonly wants: 'block'; readonly switch: SwitchId; readonly port: BridgePortId }
  | { readonly wants: 'carry'; readonly link: LinkId };

/** Two wishes are the same one. */
export const sameWish = (x: Wish, y: Wish): boolean =>
  x.wants === 'block'
    ? y.wants === 'block' && x.switch === y.switch && x.port === y.port
    : y.wants === 'carry' && x.link === y.link;

/** A wish in words: `block at ridge-a port 1`. */
export function wishText(design: Design, wish: Wish): string {
  const nameOf = (id: SwitchId): string => design.switches.find((sw) => sw.id === id)?.name ?? id;
  if (wish.wants === 'block') return `block at ${nameOf(wish.switch)} port ${wish.port}`;
  const link = design.links.find((each) => each.id === wish.link);
  return link
    ? `carry the frames from ${nameOf(link.a.switch)} port ${link.a.port} to ${nameOf(link.b.switch)} port ${link.b.port}`
    : 'carry the frames over a link that is gone';
}

/** A wish by port indices; for one to block, `a` is the end that should. */
export interface Target {
  readonly wants: Wish['wants'];
  readonly a: number;
  readonly b: number;
}

/** The ends that a wish is about; the error says why there is nothing to steer. */
export function targetOf(network: Network, wish: Wish): Result<Target, string> {
  const link = wish.wants === 'carry' ? network.design.links.find((each) => each.id === wish.link) : undefined;
  // A bundle is steered as the one port that it is.
  const a = bridgePortOf(
    network,
    wish.wants === 'carry'
      ? link
        ? network.portIndexOf(link.a.switch, link.a.port)
        : -1
      : network.portIndexOf(wish.switch, wish.port),
  );
  if (a < 0) return fail('There is no such port.');
  const b = network.far[a]!;
  if (b < 0) return fail(`${label(network, a)} has no cable to another switch.`);
  if (deadReason(network, a) !== null) return fail(`${label(network, a)} has no signal: nothing can be steered there.`);
  return ok({ wants: wish.wants, a, b });
}

/** A port with signal that takes part and discards. */
const blocks = (tree: SettledTree, p: number): boolean =>
  tree.role[p] !== CODE.absent && tree.role[p] !== CODE.disabled && !forwards(tree, p);

/** Whether a tree does what is wished. */
export const isMet = (tree: SettledTree, { wants, a, b }: Target): boolean =>
  wants === 'block' ? blocks(tree, a) && forwards(tree, b) : forwards(tree, a) && forwards(tree, b);

/** Why wishes can never come true together in a tree, whatever is set; null where they may. */
export function whyNever(network: Network, tree: SettledTree, targets: readonly Target[]): string | null {
  const [name, sw] = [
    (p: number) => label(network, p),
    (p: number) => switchName(network.switches[network.owner[p]!]!),
  ];
  const missing = targets.flatMap(({ a, b }) => [a, b]).find((p) => tree.role[p] === CODE.absent);
  if (missing !== undefined) return `${name(missing)} does not carry ${treesName([tree.id])}.`;
  const out = targets.flatMap(({ a, b }) => [a, b]).find((p) => leadsOut(tree, p));
  if (out !== undefined)
    return `${name(out)} leads out of its region: there ${treesName([tree.id])} does what the CIST does, so ask it of the CIST.`;

  const blocking = new Set(targets.flatMap(({ wants, a }) => (wants === 'block' ? [a] : [])));
  for (const { wants, a, b } of targets) {
    if (wants === 'block' && blocking.has(b))
      return `${name(a)} and ${name(b)} are the two ends of one link: one of them is always designated, so they cannot both block.`;
    if (wants === 'carry' && (blocking.has(a) || blocking.has(b)))
      return `The link from ${name(a)} to ${name(b)} cannot both block and carry the frames.`;
  }
  const circle = circleOf(network, targets);
  if (circle) {
    const [one, ...rest] = circle.map(({ a, b }) => [name(a), sw(b), sw(a)] as const);
    return `To block at ${one![0]}, ${one![1]} has to be nearer to the root than ${one![2]}; ${rest.map(([end, near, far]) => `to block at ${end}, ${near} nearer than ${far}`).join('; ')}: they cannot all be.`;
  }
  const parts = partsOf(
    network,
    (p) => tree.role[p] !== CODE.absent && !blocking.has(p) && !blocking.has(network.far[p]!),
  );
  const cut = targets.find(
    ({ wants, a, b }) => wants === 'block' && parts[network.owner[a]!] !== parts[network.owner[b]!],
  );
  if (cut) {
    const others = [...blocking].filter((p) => p !== cut.a).map(name);
    return `Blocking ${[name(cut.a), ...others].join(' and ')} would cut ${sw(cut.a)} from ${sw(cut.b)} in ${treesName([tree.id])}: no other way joins them.`;
  }
  const joined = Array.from(network.switches.keys());
  const leadOf = (s: number): number => (joined[s] === s ? s : leadOf(joined[s]!));
  for (const { wants, a, b } of targets) {
    if (wants !== 'carry') continue;
    const [x, y] = [leadOf(network.owner[a]!), leadOf(network.owner[b]!)];
    if (x === y)
      return `The links that should carry the frames close a loop at the one from ${name(a)} to ${name(b)}: one of them has to block.`;
    joined[x] = y;
  }
  return null;
}

/** Wishes to block by which switches would each have to be nearer to the root than the next, in a circle; null where there is none. */
function circleOf({ owner }: Network, targets: readonly Target[]): readonly Target[] | null {
  const blocking = targets.filter(({ wants, a, b }) => wants === 'block' && owner[a] !== owner[b]);
  const done = new Set<Target>();
  const follow = (way: readonly Target[]): readonly Target[] | null => {
    const last = way.at(-1)!;
    for (const next of blocking) {
      if (owner[next.b] !== owner[last.a] || done.has(next)) continue;
      const from = way.indexOf(next);
      const found = from >= 0 ? way.slice(from) : follow([...way, next]);
      if (found) return found;
    }
    done.add(last);
    return null;
  };
  for (const start of blocking) {
    const found = follow([start]);
    if (found) return found;
  }
  return null;
}
