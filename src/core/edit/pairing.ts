/** Making a pair of two switches that are there: cables between them become the peer link, and cables that others have to both become bundles. */
import { firstFree } from '../base/firstFree';
import { fail, ok, type Result } from '../base/result';
import type { Command } from './commands';
import { FreshNames } from './fresh';
import { hostBundleSchema, pairField, traitsOf, type Bundle, type Design, type Switch } from '../model/document';
import type { BridgePortId, HostId, PortId, SwitchId } from '../model/ids';
import { nameOf } from '../model/names';
import { newBundle, takenIds } from './newBundle';

/** The commands that do it, in one step; the first is primary. The error is a sentence. */
export function pairThese(design: Design, ids: readonly SwitchId[]): Result<Command[], string> {
  const [one, other, ...more] = ids.flatMap((id) => design.switches.filter((sw) => sw.id === id));
  if (!one || !other || more.length > 0) return fail('A pair takes two switches.');
  const paired = [one, other].find(({ pair }) => pair !== undefined);
  if (paired) return fail(`${nameOf(paired)} is half of a pair already.`);
  if (one.dialect !== other.dialect)
    return fail(
      `The switches of a pair run one spanning tree mode: ${nameOf(one)} runs ${traitsOf(one.dialect).name}, ${nameOf(other)} ${traitsOf(other.dialect).name}.`,
    );
  if (one.region !== other.region) return fail('The switches of a pair have one MST configuration.');
  const making = new Making(design, [one, other]);
  const peer = making.peerLink();
  if (!peer.ok) return peer;
  for (const sw of design.switches) if (sw !== one && sw !== other) making.bundleTo(sw);
  for (const { id, attach, bundle } of design.hosts) if (!bundle) making.bundleCards(id, attach);
  const fresh = new FreshNames(design);
  const domain = firstFree(new Set(design.switches.flatMap(({ pair }) => (pair ? [pair.domain] : []))));
  const half = { domain, mac: fresh.mac() };
  return ok([
    ...making.commands,
    ...[one, other].map(({ id }, i): Command => ({
      do: 'set-switch',
      switch: id,
      pair: pairField.parse({ ...half, peerLink: peer.value[i]!, priority: i === 0 ? 100 : 200 })!,
    })),
  ]);
}

/** The bundle that a port is a member of. */
const bundleAt = ({ bundles }: Design, sw: SwitchId, port: PortId): Bundle | undefined =>
  bundles.find((bundle) => bundle.switch === sw && bundle.ports.includes(port));

type Plug = { readonly switch: SwitchId; readonly port: PortId };

/** Bundles as they come. */
class Making {
  readonly commands: Command[] = [];
  /** With what has been made so far. */
  private design: Design;
  private readonly taken: Set<string>;
  private readonly both: readonly [Switch, Switch];

  constructor(design: Design, both: readonly [Switch, Switch]) {
    this.design = design;
    this.taken = takenIds(design);
    this.both = both;
  }

  /** The bundles that the peer link is, at both ends. */
  peerLink(): Result<readonly [Bundle['id'], Bundle['id']], string> {
    const [one, other] = this.both;
    const cables = this.cables(one.id, other.id);
    const there = [one, other].map((sw, i) => {
      const owners = cables.map((ends) => bundleAt(this.design, sw.id, ends[i]!.port));
      return owners.find((owner) => owner !== undefined);
    });
    if (there[0] && there[1]) return ok([there[0].id, there[1].id]);
    const free = cables.filter((ends) => ends.every((end) => !bundleAt(this.design, end.switch, end.port)));
    if (free.length === 0)
      return fail(`No cable joins ${nameOf(one)} and ${nameOf(other)}: a pair needs a peer link between its switches.`);
    return ok([
      this.add(
        one.id,
        free.map(([a]) => a.port),
        other.id,
        nameOf(other),
      ),
      this.add(
        other.id,
        free.map(([, b]) => b.port),
        one.id,
        nameOf(one),
      ),
    ]);
  }

  /** Single cables of a switch to both of them become one bundle there, and a half at each. */
  bundleTo({ id, name }: Switch): void {
    const halves = this.both.map((sw) =>
      this.cables(sw.id, id).filter((ends) => ends.every((end) => !bundleAt(this.design, end.switch, end.port))),
    );
    if (halves.some((half) => half.length === 0)) return;
    const number = this.pairNumber();
    for (const [i, half] of halves.entries())
      this.add(
        this.both[i]!.id,
        half.map(([own]) => own.port),
        id,
        name ?? id,
        number,
      );
    const [one, other] = this.both.map(nameOf);
    this.add(
      id,
      halves.flat().map(([, far]) => far.port),
      this.both[0].id,
      `${one} and ${other}`,
    );
  }

  /** So do the cards of a host. */
  bundleCards(id: HostId, attach: readonly Plug[]): void {
    const halves = this.both.map((sw) => attach.filter((at) => at.switch === sw.id));
    if (halves.some((half) => half.length === 0) || halves.flat().length < attach.length) return;
    if (attach.some((at) => bundleAt(this.design, at.switch, at.port))) return;
    const number = this.pairNumber();
    const host = this.design.hosts.find((each) => each.id === id)!;
    for (const [i, half] of halves.entries())
      this.add(
        this.both[i]!.id,
        half.map(({ port }) => port),
        id,
        nameOf(host),
        number,
      );
    this.commands.push({ do: 'set-host', host: id, bundle: hostBundleSchema.parse({}) });
  }

  /** Cables between two switches, each with its end at the first. */
  private cables(from: SwitchId, to: SwitchId): (readonly [Plug, Plug])[] {
    return this.design.links.flatMap(({ a, b }): (readonly [Plug, Plug])[] =>
      a.switch === from && b.switch === to ? [[a, b]] : b.switch === from && a.switch === to ? [[b, a]] : [],
    );
  }

  private add(
    at: SwitchId,
    ports: readonly BridgePortId[],
    far: SwitchId | HostId,
    farName: string,
    pairNumber?: number,
  ): Bundle['id'] {
    const made = newBundle(this.design, this.taken, { switch: at, ports, mode: 'active', far, farName });
    const bundle = pairNumber === undefined ? made : { ...made, pairNumber };
    this.design = { ...this.design, bundles: [...this.design.bundles, bundle] };
    this.commands.push({ do: 'add-bundle', bundle });
    return bundle.id;
  }

  private pairNumber(): number {
    return firstFree(new Set(this.design.bundles.flatMap(({ pairNumber }) => pairNumber ?? [])));
  }
}
