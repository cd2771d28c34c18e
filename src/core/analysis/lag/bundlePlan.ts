/** The order of steps that bundles parallel links while the network runs: none loops, none cuts off for longer than a port takes over. */
import type { Command } from '../../edit/commands';
import type { LinkId, PortId, SwitchId } from '../../model/ids';
import type { Bundle, Design, Link } from '../../model/document';
import { fail, ok, type Result } from '../../base/result';
import { CODE, type Solution, forwards } from '../../tree/settled';
import { bundleThese } from './bundling';
import type { Plan, PlanStep } from '../plans/plan';

/** `lacp`: by negotiation; `static`: the careful order; `static-both-ends`: both cables in, one end after the other, to show what that does. */
export type PlanKind = 'lacp' | 'static' | 'static-both-ends';

export interface BundlingPlan extends Plan {
  /** The design once all is done, in one step. */
  readonly commands: readonly Command[];
}

/** Plans the bundling of links between two switches; fails with a sentence where they cannot be bundled. */
export function planBundle(
  design: Design,
  solution: Solution | null,
  ids: readonly LinkId[],
  kind: PlanKind,
): Result<BundlingPlan, string> {
  const made = bundleThese(design, ids, kind === 'lacp' ? ['active', 'active'] : ['static', 'static']);
  if (!made.ok) return made;
  const links = ids.flatMap((id) => design.links.filter((link) => link.id === id));
  if (links.length < 2) return fail('A plan needs two links or more.');
  const kept = carrying(links, solution);
  const others = links.filter((link) => link !== kept);
  const [below, above] = inOrder(made.value.bundles, kept, solution);
  const nameOf = (id: SwitchId): string => design.switches.find((sw) => sw.id === id)?.name ?? id;
  const portsAt = (bundle: Bundle, of: readonly Link[]): PortId[] =>
    of.map((link) => (link.a.switch === bundle.switch ? link.a.port : link.b.port));
  const portText = (ports: readonly PortId[]): string => `${ports.length === 1 ? 'port' : 'ports'} ${ports.join(', ')}`;
  const cableText = (of: readonly Link[]): string =>
    of.length === 1
      ? `the cable ${nameOf(of[0]!.a.switch)} port ${of[0]!.a.port} to ${nameOf(of[0]!.b.switch)} port ${of[0]!.b.port}`
      : `the ${of.length} other cables`;
  const steps: PlanStep[] = [];
  const step = (where: SwitchId | null, text: string, why: string, ...changes: readonly Command[]): void =>
    void steps.push({ key: String(steps.length), switch: where, does: [text], why, changes });
  const begin = (bundle: Bundle, of: readonly Link[]): Command => ({
    do: 'add-bundle',
    bundle: { ...bundle, ports: portsAt(bundle, of) },
  });
  const widen = (bundle: Bundle): Command => ({ do: 'set-bundle', bundle: bundle.id, ports: [...bundle.ports] });
  const cut = (of: readonly Link[]): Command[] => of.map((link) => ({ do: 'set-link', link: link.id, up: false }));
  const plug = (of: readonly Link[]): Command[] => of.map((link) => ({ do: 'set-link', link: link.id, up: true }));
  const on = (bundle: Bundle): string => `On ${nameOf(bundle.switch)}: `;

  /** The link that carried the traffic comes in last, out of service meanwhile: alone in a bundle it would become a port of its own again. */
  const over = (): void => {
    step(
      null,
      `Unplug ${cableText([kept])}.`,
      'The traffic goes over to the bundle, whose blocking port takes over at once.',
      ...cut([kept]),
    );
    for (const bundle of [below, above])
      step(
        bundle.switch,
        `${on(bundle)}${portText(portsAt(bundle, [kept]))} into the bundle too.`,
        'Nothing is plugged in there.',
        widen(bundle),
      );
    step(null, `Plug in ${cableText([kept])}.`, 'The last member joins; the cost falls.', ...plug([kept]));
  };

  if (kind === 'static-both-ends') {
    step(
      below.switch,
      `${on(below)}static bundle of ${portText(below.ports)}.`,
      'From here until the other end follows, one end bundles and the other does not.',
      begin(below, links),
    );
    step(
      above.switch,
      `${on(above)}static bundle of ${portText(above.ports)}.`,
      'Both ends mean the same cables again.',
      begin(above, links),
    );
  } else if (kind === 'lacp') {
    const plugged = others.filter((link) => link.up);
    for (const bundle of [below, above])
      step(
        bundle.switch,
        `${on(bundle)}new bundle of ${portText(portsAt(bundle, others))}, active.`,
        bundle === below
          ? 'The link that carries the traffic stays as it is.'
          : 'The bundle comes up beside the link that carries the traffic, and blocks like the link before it.',
        begin(bundle, others),
      );
    if (plugged.length < others.length)
      step(
        null,
        `Plug in ${cableText(others.filter((link) => !link.up))}.`,
        'Both ends negotiate already: it cannot loop.',
        ...plug(others.filter((link) => !link.up)),
      );
    over();
  } else {
    step(
      null,
      `Unplug ${cableText(others)}.`,
      'A static end checks nothing: what is half done must not be plugged in.',
      ...cut(others),
    );
    for (const bundle of [below, above])
      step(
        bundle.switch,
        `${on(bundle)}static bundle of ${portText(portsAt(bundle, others))}.`,
        'Nothing is plugged in there yet.',
        begin(bundle, others),
      );
    step(
      null,
      `Plug in ${cableText(others)}.`,
      'Both ends bundle the same cables; spanning tree sees one link beside the old one.',
      ...plug(others),
    );
    over();
  }
  return ok({
    preparation: [],
    steps,
    commands: [
      ...made.value.commands,
      ...links.filter((link) => !link.up).map((link): Command => ({ do: 'set-link', link: link.id, up: true })),
    ],
  });
}

/** The link that carries frames in most trees; the first where none does. */
function carrying(links: readonly Link[], solution: Solution | null): Link {
  const score = (link: Link): number => {
    if (!solution) return link.up ? 1 : 0;
    const ends = [link.a, link.b].map((end) => solution.network.portIndexOf(end.switch, end.port));
    return solution.trees.filter((tree) => ends.every((p) => forwards(tree, p))).length + (link.up ? 0.5 : 0);
  };
  return links.reduce((best, link) => (score(link) > score(best) ? link : best));
}

/** The end farther from the roots first: its blocking port is the one that takes over at once. */
function inOrder(
  [one, two]: readonly [Bundle, Bundle],
  kept: Link,
  solution: Solution | null,
): readonly [Bundle, Bundle] {
  if (!solution) return [one, two];
  const roots = (bundle: Bundle): number => {
    const end = kept.a.switch === bundle.switch ? kept.a : kept.b;
    const p = solution.network.portIndexOf(end.switch, end.port);
    return solution.trees.filter((tree) => tree.role[p] === CODE.root).length;
  };
  return roots(two) > roots(one) ? [two, one] : [one, two];
}
