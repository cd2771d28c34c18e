/** The chapters that a report may have: one line each, in the order in which they stand unless people say otherwise. */
import { decidedText } from '../../model/decision';
import { decisionOn, openFirst } from '../../analysis/findings/decided';
import { findingsOf } from '../../analysis/findings/findings';
import { failureText } from '../../analysis/failures/failure';
import { protectionOf } from '../../analysis/guards/protection';
import { intentText, judged } from '../../analysis/intents/intents';
import { Settled } from '../../analysis/intents/settled';
import { linkLoads } from '../../analysis/sharing/load';
import { counted } from '../../base/words';
import { carriageText, traitsOf } from '../../model/document';
import { treeName, treesName } from '../../model/ids';
import { nameOf } from '../../model/names';
import { bridgeIdText, bridgeId } from '../../topology/bridgeId';
import { viewBundles } from '../../topology/lag/view';
import { explainRoot, islandRoots, standbyRoot } from '../../tree/explain/election';
import { explainPort } from '../../tree/explain/explain';
import { label } from '../../tree/explain/phrases';
import { blocks, roleOf, type SettledTree } from '../../tree/settled';
import { changeChapter, changesChapter } from './change';
import { listOf, tableOf, words, type Block, type ReportChapter, type Reported } from './report';

const together = (trees: readonly SettledTree[]): string => treesName(trees.map(({ id }) => id));

function summary({ design, solution, failures, names }: Reported): Block[] {
  const findings = findingsOf(design, solution);
  const staying = openFirst(design, findings).staying.length;
  const verdicts = [...judged(new Settled(solution), design.intents).values()];
  const broken = new Set([
    ...[...judged(new Settled(solution), design.intents)].flatMap(([id, { is }]) => (is === 'broken' ? [id] : [])),
    ...(failures?.outcomes.flatMap((outcome) => outcome.broken.map(({ intent }) => intent)) ?? []),
  ]);
  const cut = failures?.outcomes.filter(({ cutOff }) => cutOff.length > 0) ?? [];
  const modes = [...new Set(design.switches.map(({ dialect }) => traitsOf(dialect).name))];
  return [
    ...(design.notes.trim() === '' ? [] : [words(design.notes.trim())]),
    ...listOf([
      `${counted(design.switches.length, 'switch', 'switches')}, ${counted(design.links.length, 'link')}, ${counted(design.vlans.length, 'VLAN')}, ${counted(design.hosts.length, 'host')}; spanning tree: ${modes.join(', ') || 'none'}.`,
      `${counted(solution.trees.length, 'tree')}, ${counted(design.bundles.length, 'bundle')}.`,
      findings.length === 0
        ? 'No findings.'
        : `${counted(findings.length, 'finding')}${staying === 0 ? '' : `, ${staying} of which ${staying === 1 ? 'is' : 'are'} to stay`}.`,
      ...(verdicts.length === 0
        ? []
        : [
            `${counted(verdicts.length, 'intent')}: ${broken.size === 0 ? 'all hold' : `${broken.size} broken`}${failures ? ', whatever single thing fails' : ''}.`,
          ]),
      ...(failures
        ? [
            cut.length === 0
              ? `Of ${counted(failures.outcomes.length, 'single failure')} none cuts anybody off for good.`
              : `Of ${counted(failures.outcomes.length, 'single failure')} ${cut.length} cut somebody off for good: ${cut
                  .slice(0, 3)
                  .map(({ failure }) => failureText(failure, names))
                  .join('; ')}${cut.length > 3 ? ' and others' : ''}.`,
          ]
        : []),
    ]),
  ];
}

const pictures = ({ alike, solution }: Reported): Block[] =>
  alike.length === 0
    ? [{ kind: 'picture', caption: 'The network; no switch runs spanning tree', trees: [], of: 'now' }]
    : alike.slice(0, MOST_PICTURES).map((trees): Block => {
        const roots = islandRoots(solution.network, trees[0]!).map((s) => nameOf(solution.network.switches[s]!));
        return {
          kind: 'picture',
          caption: `${together(trees)}: root ${roots.join(', ') || 'nobody'}`,
          trees: [trees[0]!.id],
          of: 'now',
        };
      });
/** Groups of alike trees that are drawn. */
const MOST_PICTURES = 24;

function roots({ alike, solution }: Reported): Block[] {
  const { network } = solution;
  const { switches } = network;
  return tableOf(
    ['trees', 'root', 'standby', 'why'],
    alike.flatMap((trees) =>
      islandRoots(network, trees[0]!).map((s) => {
        const [tree] = trees as [SettledTree];
        const next = standbyRoot(tree, s);
        const called = (at: number): string =>
          at < 0 ? 'nobody' : `${nameOf(switches[at]!)}, ${bridgeIdText(bridgeId(switches[at]!, tree.id))}`;
        return [together(trees), called(s), called(next), explainRoot(network, tree, s)?.sentence ?? ''];
      }),
    ),
  );
}

function blockedEnds({ alike, solution }: Reported): Block[] {
  const { network } = solution;
  return tableOf(
    ['end', 'trees', 'role', 'why'],
    alike.flatMap((trees) => {
      const [tree] = trees as [SettledTree];
      return network.ports.flatMap((_, p) =>
        blocks(tree, p)
          ? [[label(network, p), together(trees), roleOf(tree, p)!, explainPort(solution, tree, p)?.sentence ?? '']]
          : [],
      );
    }),
  );
}

const bundles = ({ design, names }: Reported): Block[] =>
  tableOf(
    ['bundle', 'what it comes to', 'members'],
    viewBundles(design).map(({ switch: sw, host, id, reason, members }) => [
      sw === undefined ? names.host(host!) : `${names.switch(sw)} ${id}`,
      reason,
      Object.entries(members)
        .map(([port, member]) => `${port}: ${member.reason}`)
        .join('; '),
    ]),
  );

const regions = ({ design, names }: Reported): Block[] =>
  tableOf(
    ['region', 'revision', 'instances', 'switches'],
    design.regions.map(({ id, name, revision, instances }) => [
      name || id,
      String(revision),
      instances.map((instance) => `${instance.id}: ${instance.vlans || 'no VLAN'}`).join('; ') || 'none',
      design.switches
        .filter(({ region }) => region === id)
        .map((sw) => names.switch(sw.id))
        .join(', '),
    ]),
  );

const guards = ({ solution }: Reported): Block[] =>
  tableOf(
    ['port', 'leads', 'guarded', 'why'],
    protectionOf(solution)
      .filter(({ verdict }) => verdict !== 'plain')
      .map(({ p, lead, verdict, why }) => [label(solution.network, p), lead, verdict, why]),
  );

function loads({ solution, names }: Reported): Block[] {
  const { links, assumed, unset } = linkLoads(solution);
  const mbps = (load: number): string => `${Math.round(load * 10) / 10} Mb/s`;
  return [
    ...(assumed ? [words('No VLAN has a load: each counts as 1 Mb/s.')] : []),
    ...(unset.length > 0 && !assumed ? [words(`Without a load: VLANs ${unset.join(', ')}.`)] : []),
    ...tableOf(
      ['link', 'load', 'of its speed', 'by trees'],
      [...links]
        .sort((a, b) => b.share - a.share)
        .map(({ link, total, share, state, byTree }) => [
          names.link(link),
          state === 'carries' ? mbps(total) : state,
          state === 'carries' ? `${Math.round(share * 1000) / 10} %` : '',
          [...byTree].map(([tree, load]) => `${treeName(tree)} ${mbps(load)}`).join(', '),
        ]),
    ),
  ];
}

function intents({ design, solution, failures, names }: Reported): Block[] {
  const verdicts = judged(new Settled(solution), design.intents);
  return tableOf(
    ['intent', 'must or should', 'holds', 'why not', 'note'],
    design.intents.map((intent) => {
      const verdict = verdicts.get(intent.id)!;
      const broken = (failures?.outcomes ?? []).flatMap((outcome) =>
        outcome.broken
          .filter((each) => each.intent === intent.id)
          .map((each) => `if ${failureText(outcome.failure, names)}: ${each.why}`),
      );
      const holds =
        verdict.is === 'later'
          ? failures === null
            ? 'not asked'
            : broken.length === 0
              ? 'yes'
              : 'no'
          : verdict.is === 'holds'
            ? 'yes'
            : 'no';
      const why = verdict.is === 'later' ? broken : 'why' in verdict ? [verdict.why] : [];
      return [intentText(design, intent), intent.severity, holds, few(why), intent.note];
    }),
  );
}

const few = (all: readonly string[]): string =>
  `${all.slice(0, 5).join('; ')}${all.length > 5 ? `; and ${all.length - 5} more` : ''}`;

function everyFailure({ failures, names }: Reported): Block[] {
  if (!failures) return [];
  return tableOf(
    ['what fails', 'ends that change', 'new roots', 'cut off for good', 'fullest link'],
    failures.outcomes.map(({ failure, ends, roots: fresh, cutOff, peak }) => [
      failureText(failure, names),
      String(ends),
      fresh.map(({ tree, root }) => `${treeName(tree)}: ${root === null ? 'nobody' : names.switch(root)}`).join(', '),
      few(cutOff.map((host) => names.host(host))),
      peak ? `${names.link(peak.link)}, ${Math.round(peak.share * 100)} %` : '',
    ]),
  );
}

const findings = ({ design, solution }: Reported): Block[] =>
  tableOf(
    ['finding', 'why it matters', 'what would mend it', 'decided'],
    findingsOf(design, solution).map((finding) => {
      const decision = decisionOn(design, finding);
      return [
        finding.text,
        finding.why,
        finding.remedies[0]?.label ?? 'a matter of judgement',
        decision ? decidedText(decision) : 'nothing yet',
      ];
    }),
  );

const cables = ({ design, names }: Reported): Block[] =>
  tableOf(
    ['one end', 'other end', 'speed', 'cable'],
    design.links.map(({ a, b, up }) => [
      names.end(a),
      names.end(b),
      `${Math.min(...[a, b].map((end) => design.switches.find(({ id }) => id === end.switch)!.ports.find(({ id }) => id === end.port)!.speed))} Mb/s`,
      up ? 'whole' : 'cut',
    ]),
  );

function ports({ design, names }: Reported): Block[] {
  const plugged = new Map<string, string>();
  for (const { a, b } of design.links)
    for (const [end, far] of [
      [a, b],
      [b, a],
    ] as const)
      plugged.set(`${end.switch} ${end.port}`, names.end(far));
  for (const host of design.hosts)
    for (const end of host.attach) plugged.set(`${end.switch} ${end.port}`, names.host(host.id));
  return design.switches.flatMap((sw) => [
    words(`${nameOf(sw)}: ${traitsOf(sw.dialect).name}, ${sw.mac}, priority ${sw.priority}`),
    ...tableOf(
      ['port', 'to', 'speed', 'VLANs'],
      sw.ports.map((port) => [
        port.id,
        plugged.get(`${sw.id} ${port.id}`) ?? '',
        `${port.speed} Mb/s${port.up ? '' : ', set down'}`,
        carriageText(port.vlans),
      ]),
    ),
  ]);
}

export const CHAPTERS: readonly ReportChapter[] = [
  { key: 'summary', name: 'Summary', write: summary },
  { key: 'changes', name: 'What changes', write: changesChapter, ofChange: true },
  { key: 'plan', name: 'The change, step by step', write: changeChapter, ofChange: true },
  { key: 'trees', name: 'Trees', write: pictures },
  { key: 'roots', name: 'Roots and standbys', write: roots },
  { key: 'blocked', name: 'Blocked ends', write: blockedEnds },
  { key: 'bundles', name: 'Bundles', write: bundles },
  { key: 'regions', name: 'Regions', write: regions },
  { key: 'guards', name: 'Guards', write: guards },
  { key: 'loads', name: 'Loads', write: loads },
  { key: 'intents', name: 'Intents', write: intents },
  { key: 'failures', name: 'Failures', write: everyFailure, ofFailures: true },
  { key: 'findings', name: 'Findings', write: findings },
  { key: 'cables', name: 'Cables', write: cables },
  { key: 'ports', name: 'Ports and VLANs of each switch', write: ports },
];
