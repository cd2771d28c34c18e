/** Loads, bundles, regions, guards of edge ports, findings. */
import { nameOf } from '../../../model/names';
import { RULES, type Rule } from '../../findings/finding';
import { regionsIn } from '../../regions/regions';
import { protectionOf } from '../../guards/protection';
import type { Breach, Claim, Form, Way } from '../claim';
import type { End, SwitchesOf } from '../reader';
import { few, type Settled } from '../settled';

/** Puts a claim together. */
const claim = (
  write: Claim['write'],
  judge: (of: Settled) => Breach | null,
  mend?: (of: Settled) => Way | null,
): Claim => ({
  write,
  judge,
  ...(mend ? { mend } : {}),
});

const loadClaim = (percent: number): Claim =>
  claim(
    () => `no link above ${percent} %`,
    ({ loads: { peak }, names }) =>
      peak && peak.share * 100 > percent
        ? {
            why: `The link ${names.link(peak.link)} is at ${Math.round(peak.share * 100)} %.`,
            at: { link: peak.link, trees: [...peak.byTree.keys()] },
          }
        : null,
  );

function bundleClaim(end: End, least: number | null): Claim {
  return claim(
    (writer) => `bundle ${writer.end(end)} is up${least === null ? '' : ` with at least ${least} members`}`,
    ({ network, names }) => {
      const p = network.portIndexOf(end.switch, end.port);
      const active = network.live[p] === 1 ? (network.aggregates.get(p)?.active.length ?? 0) : 0;
      if (active >= (least ?? 1)) return null;
      const is = active === 0 ? 'is down' : `has ${active === 1 ? '1 active member' : `${active} active members`}`;
      return { why: `${names.end(end)} ${is}.`, at: end };
    },
  );
}

const regionClaim = (who: readonly SwitchesOf[]): Claim =>
  claim(
    (writer) => `${writer.switches(who)} are in one region`,
    (of) => {
      const wanted = of.switchesOf(who).filter((id) => of.network.switches[of.network.switchIndex.get(id)!]!.up);
      const pieces = regionsIn(of.network).flatMap((region) => region.pieces);
      const [most = [], ...others] = pieces
        .map((piece) => wanted.filter((id) => piece.includes(id)))
        .filter((piece) => piece.length > 0)
        .sort((a, b) => b.length - a.length);
      const apart = wanted.filter((id) => !most.includes(id));
      if (apart.length === 0) return null;
      const what =
        others.length === 0 ? 'in no region' : most.length === 0 ? 'in no region' : 'not in the region of the others';
      return {
        why: `${few(apart.map((id) => of.names.switch(id)))} ${apart.length === 1 ? 'is' : 'are'} ${what}.`,
        at: { switch: apart[0]! },
      };
    },
  );

const unguarded = ({ solution }: Settled) =>
  protectionOf(solution).filter(({ lead, bpduGuard }) => lead === 'edge' && !bpduGuard);

const edgeClaim: Claim = claim(
  () => 'every edge port is guarded',
  (of) => {
    const open = unguarded(of);
    const [first] = open;
    if (!first) return null;
    return {
      why: `${few(open.map((each) => of.names.end(each)))} ${open.length === 1 ? 'has' : 'have'} no BPDU guard.`,
      at: { switch: first.switch, port: first.port },
    };
  },
  (of) => ({
    label: 'Guard these ports',
    commands: unguarded(of).map(({ switch: sw, port }) => ({ do: 'set-port', switch: sw, port, bpduGuard: true })),
  }),
);

const findingClaim = (rule: Rule | null): Claim =>
  claim(
    () => (rule === null ? 'no finding' : `no finding of ${rule}`),
    ({ findings }) => {
      const found = findings.filter((each) => rule === null || each.rule === rule);
      const [first] = found;
      return first
        ? { why: found.length === 1 ? first.text : `${first.text} And ${found.length - 1} more.`, at: first.at }
        : null;
    },
    ({ findings }) => {
      const remedy = findings.find((each) => rule === null || each.rule === rule)?.remedies[0];
      return remedy ? { label: remedy.label, commands: remedy.commands } : null;
    },
  );

export const otherForms: readonly Form[] = [
  {
    words: 'no link above',
    about: 'nothing',
    detail: 'load of every link, per cent of its speed',
    read: (reader) => loadClaim(reader.number('a share, such as 70 %', '%', (n) => n > 0 && n <= 1000)),
  },
  {
    words: 'bundle',
    about: 'nothing',
    detail: 'is up, with so many members',
    read(reader) {
      const end = reader.port();
      const bundle = reader.of.bundles.find((each) => each.switch === end.switch && each.id === end.port);
      if (!bundle)
        reader.wrong(`${end.port} is no bundle of ${nameOf(reader.of.switches.find(({ id }) => id === end.switch)!)}`);
      reader.needs('is up');
      const least = reader.takes('with at least', 'active members')
        ? reader.number('a number of members', 'members', (n) => Number.isInteger(n) && n >= 1)
        : null;
      return bundleClaim(end, least);
    },
  },
  {
    words: 'are in one region',
    about: 'subject',
    detail: 'MST switches that agree and hang together',
    read: (reader, subject) => regionClaim(subject.map((item) => reader.switchesOf(item))),
  },
  {
    words: 'every edge port is guarded',
    about: 'nothing',
    detail: 'BPDU guard on every edge port',
    read: () => edgeClaim,
  },
  {
    words: 'no finding',
    about: 'nothing',
    detail: 'none at all, or of a kind',
    read: (reader) =>
      findingClaim(
        reader.takes('of', 'a kind') ? reader.oneOf(RULES, 'a kind of finding, as knot-path check names it') : null,
      ),
  },
];
