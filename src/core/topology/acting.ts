/** A network as its bridges are: pairs that act as one are one bridge, which has the ports of both switches, and their bundles whole. */
import type { Design } from '../model/document';
import { nameOf } from '../model/names';
import type { BridgePortId, SwitchId } from '../model/ids';
import { bridgePorts } from './aggregated';
import type { Bridge, BridgePort, Places } from './bridges';
import type { Network, PairedBridges } from './shape';
import { actsAsOne, pairsOf, type PairedSwitch } from './pairs';

export function pairedIn(design: Design, { switchIndex, portIndexOf }: Omit<Places, 'firstPort'>): PairedBridges[] {
  return pairsOf(design).map(({ state, switches: [one, other], bundles }) => {
    const peerOf = ({ id, pair }: PairedSwitch): number => portIndexOf(id, pair.peerLink);
    return {
      state,
      first: switchIndex.get(one.id)!,
      bundles: bundles.flatMap(({ unlike, halves: [a, b] }) =>
        unlike.length > 0 ? [] : [[portIndexOf(a.switch, a.id), portIndexOf(b.switch, b.id)] as const],
      ),
      peer: [peerOf(one), peerOf(other)],
      named: [state !== 'unlike', actsAsOne({ state }) || state === 'both-alone'],
    };
  });
}

/** The ports that carry a keepalive alone. */
export const keepalivePorts = (
  { switches }: Design,
  portIndexOf: (sw: SwitchId, port: BridgePortId) => number,
): number[] =>
  switches.flatMap(({ id, pair }) => (pair?.keepalivePort === undefined ? [] : [portIndexOf(id, pair.keepalivePort)]));

/** Whether a pair acts as one bridge. */
export const isOne = ({ state }: PairedBridges): boolean => actsAsOne({ state });

/** The ports that a port of a bridge is at its switches: two of a bundle of a pair. */
export const halvesOf = ({ pairs }: Pick<Network, 'pairs'>, p: number): readonly number[] =>
  pairs.length === 0
    ? [p]
    : (pairs.filter(isOne).flatMap(({ bundles }) => bundles.filter(([whole]) => whole === p))[0] ?? [p]);

/** The port of its bridge that a switch's port is, or is half of. */
export const wholeOf = ({ pairs }: Pick<Network, 'pairs'>, p: number): number =>
  pairs.length === 0
    ? p
    : (pairs.filter(isOne).flatMap(({ bundles }) => bundles.filter(([, half]) => half === p))[0]?.[0] ?? p);

/** Whether a port is the peer link of a pair that acts as one, inside of its bridge. */
export const isPeerLink = ({ pairs }: Pick<Network, 'pairs'>, p: number): boolean =>
  pairs.some((pair) => isOne(pair) && pair.peer.includes(p));

/** The bridge that a switch is, or is part of. */
export const bridgeOf = ({ pairs }: Pick<Network, 'pairs'>, s: number): number =>
  pairs.some((pair) => isOne(pair) && pair.first + 1 === s) ? s - 1 : s;

/** The bridges whose protocols have places for a switch's ports: its own, and while it is apart from its primary that one's. */
export function entitiesOf({ pairs, switchIndex }: Pick<Network, 'pairs' | 'switchIndex'>, id: SwitchId): number[] {
  const s = switchIndex.get(id)!;
  return pairs.some(({ first }) => first + 1 === s) ? [s, s - 1] : [s];
}

/** Where pairs act as one, so do their ports; where they do not, each switch is a bridge, by the pair's address or its own. */
export function actingFrom(network: Network): Network {
  const { pairs, firstPort } = network;
  const ones = pairs.filter(isOne);
  const owner = network.owner.slice();
  const switchIndex = new Map(network.switchIndex);
  const first = firstPort.slice();
  const ports = network.ports.slice();
  const carried = network.carried.slice();
  const whole = new Map<number, number>();
  for (const { first: s, bundles } of ones) {
    owner.fill(s, firstPort[s + 1], firstPort[s + 2]);
    first[s + 1] = firstPort[s + 2]!;
    switchIndex.set(network.switches[s + 1]!.id, s);
    const most = network.switches[s]!.ports.reduce((most, { number }) => Math.max(most, number), 0);
    for (let p = firstPort[s + 1]!; p < firstPort[s + 2]!; p += 1)
      ports[p] = { ...ports[p]!, number: numberBeside(ports[p]!.number, most) };
    for (const [a, b] of bundles) {
      whole.set(b, a);
      const own = ports[a]!;
      const speed = speedOf(network, a) + speedOf(network, b) || own.speed;
      // Of a primary without power nothing counts: the secondary's half is the bundle.
      const isUp = network.switches[s]!.up;
      ports[a] = { ...(isUp ? own : { ...ports[b]!, id: own.id, number: own.number }), speed };
      if (!isUp) carried[a] = carried[b]!;
    }
  }
  const { plug, cable, macOperational, bundles, use, portIndexOf } = network;
  const partOf = (bundle: number): number => whole.get(bundle) ?? bundle;
  const served = bridgePorts({ bundles, used: use, portIndexOf, ports, plug, cable, macOperational, partOf });
  const [live, far, link] = [served.live.slice(), served.far.slice(), served.link.slice()];
  for (const { peer } of ones)
    for (const p of peersPorts(network, peer)) {
      live[p] = 0;
      far[p] = link[p] = -1;
    }
  // A bundle lives by the half that is not shut.
  const shut = network.shut.slice();
  for (const { bundles: halves } of ones) for (const [a, b] of halves) if (!shut[a] || !shut[b]) shut[a] = shut[b] = 0;
  shut.forEach((by, p) => by !== 0 && (live[p] = 0));
  return {
    ...network,
    ...served,
    ...{ live, far, link, owner, firstPort: first, switchIndex, ports, carried, shut, acting: undefined },
    switches: switchesOf(network, ports),
  };
}

/** A port's number beside those of the primary, twelve bits. */
const numberBeside = (number: number, most: number): number => ((number + Math.min(most, 2047) - 1) % 4095) + 1;

/** The peer link, and its members that are no bundle. */
function* peersPorts({ bundleOf, ports }: Network, peer: readonly number[]): Generator<number> {
  yield* peer;
  for (let p = 0; p < ports.length; p += 1) if (peer.includes(bundleOf[p]!)) yield p;
}

/** What a half has of a bundle's speed. */
function speedOf({ aggregates, ports }: Network, bundle: number): number {
  const { active, aggregationPorts } = aggregates.get(bundle)!;
  return active.reduce((sum, place) => sum + ports[aggregationPorts[place]!]!.speed, 0);
}

/** The switches of a network, those of pairs by the name that each goes by. */
export function named({ pairs, switches }: Pick<Network, 'pairs' | 'switches'>): readonly Bridge[] {
  const all = switches.slice();
  for (const { first, named: by } of pairs)
    by.forEach((is, i) => {
      const sw = all[first + i]!;
      if (is) all[first + i] = { ...sw, mac: sw.pair!.mac };
    });
  return all;
}

function switchesOf({ switches, firstPort, pairs }: Network, ports: readonly BridgePort[]): Bridge[] {
  const all = switches.slice();
  for (const { first: s } of pairs.filter(isOne)) {
    const [one, other] = [switches[s]!, switches[s + 1]!];
    const own = ports
      .slice(firstPort[s], firstPort[s + 2])
      .map((port, i) => ((i < one.ports.length ? one : other).up ? port : { ...port, up: false }));
    const name = one.up && other.up ? `pair of ${nameOf(one)} and ${nameOf(other)}` : nameOf(one.up ? one : other);
    all[s] = { ...(one.up ? one : { ...other, id: one.id }), name, up: one.up || other.up, ports: own };
    all[s + 1] = { ...other, up: false, ports: [] };
  }
  return all;
}
