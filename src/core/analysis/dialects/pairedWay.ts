/** The way out by pairs: two switches to which one with one tree for all has cables become one, and its cables one bundle. */
import { editAll } from '../../edit/edit';
import type { Design, Switch } from '../../model/document';
import type { SwitchId } from '../../model/ids';
import { nameOf } from '../../model/names';
import { pairThese } from '../../edit/pairing';
import type { Draft } from './wayDraft';

export function paired(design: Design, strangers: readonly SwitchId[]): Draft {
  const steps: Draft['steps'][number][] = [];
  let at = design;
  for (const both of candidates(design, strangers)) {
    const commands = pairThese(
      at,
      both.map(({ id }) => id),
    );
    const edited = commands.ok ? editAll(at, commands.value) : null;
    if (!commands.ok || !edited?.ok) continue;
    at = edited.value.design;
    const [one, other] = both.map(nameOf);
    steps.push({
      switch: both[0].id,
      does: [`Make a pair of ${one} and ${other}, and bundle what has cables to both.`],
      why: 'They are one bridge then, and a bundle is one port: no BPDU leaves by one of its cables and comes back by the other.',
      changes: commands.value,
    });
  }
  const names = steps.map(({ switch: id }) => nameOf(design.switches.find((sw) => sw.id === id)!));
  return {
    key: 'pair',
    name: `uplinks bundled to ${steps.length === 1 ? `a pair around ${names[0]!}` : 'pairs'}`,
    says: 'The strangers keep their one tree, and have one neighbour instead of two; the two have to be able to be one.',
    steps,
    rebuilds: true,
  };
}

/** Pairs of switches of the many that a stranger has cables to and that are cabled to each other, each switch in one of them; those that most strangers hang on first. */
function candidates({ switches, links }: Design, strangers: readonly SwitchId[]): (readonly [Switch, Switch])[] {
  const joined = (a: SwitchId, b: SwitchId): boolean =>
    links.some((link) => [link.a.switch, link.b.switch].includes(a) && [link.a.switch, link.b.switch].includes(b));
  const others = switches.filter(({ id, up, pair }) => up && pair === undefined && !strangers.includes(id));
  const all = others.flatMap((one, i) =>
    others.slice(i + 1).flatMap((other) => {
      const hung = strangers.filter((id) => joined(id, one.id) && joined(id, other.id)).length;
      return hung > 0 && joined(one.id, other.id) ? [{ both: [one, other] as const, hung }] : [];
    }),
  );
  const taken = new Set<SwitchId>();
  return all
    .sort((a, b) => b.hung - a.hung)
    .flatMap(({ both }) => {
      if (both.some(({ id }) => taken.has(id))) return [];
      for (const { id } of both) taken.add(id);
      return [both];
    });
}
