/** `knot-path explain`. */
import type { Verb } from '../verb';
import type { PortId, SwitchId } from '../../core/model/ids';
import { heardAt, heardText } from '../../core/analysis/dialects/heard';
import { bridgeIdText } from '../../core/topology/bridgeId';
import { explainRegionalRoot, explainRoot } from '../../core/tree/explain/election';
import { explainPort, whyOutside } from '../../core/tree/explain/explain';
import { fieldName, type VectorComparison } from '../../core/tree/explain/phrases';
import { fieldText, fieldsOf } from '../../core/tree/explain/vector';
import { Unusable, loadSolution, treeCalled } from '../input';

function runExplain(file: string, switchId: string, portId: string, options: { tree: string }): void {
  const { design, solution } = loadSolution(file);
  const tree = treeCalled(solution, options.tree);
  const sw = design.switches.find((s) => s.id === switchId);
  if (!sw) throw new Unusable(`switch: found "${switchId}"; allowed: ${design.switches.map((s) => s.id).join(', ')}`);
  const p = solution.network.portIndexOf(switchId as SwitchId, portId as PortId);
  if (p < 0)
    throw new Unusable(
      `port: found "${portId}"; allowed on ${switchId}: ${sw.ports.map((port) => port.id).join(', ')}`,
    );
  const why = explainPort(solution, tree, p);
  const election = explainRoot(solution.network, tree, solution.network.switchIndex.get(sw.id) ?? -1);
  const lines = why
    ? [
        `${switchId} port ${portId} in ${tree.id}: ${why.role}, ${why.state}`,
        why.sentence,
        ...why.comparisons.flatMap(comparisonLines),
      ]
    : [`${switchId} port ${portId} is not in ${tree.id}.`, whyOutside(solution.network, tree, p)];
  if (election)
    lines.push(
      '',
      election.sentence,
      ...election.ranking.map(({ name, id }, place) => `  ${place + 1}. ${bridgeIdText(id)}  ${name}`),
    );
  const regional = explainRegionalRoot(solution.network, tree, solution.network.switchIndex.get(sw.id) ?? -1);
  if (regional) lines.push('', regional);
  const heard = heardAt(solution, p).map((each) => `  ${heardText(solution, p, each)}`);
  lines.push('', heard.length === 0 ? 'No BPDUs come in.' : 'BPDUs that come in:', ...heard);
  process.stdout.write(`${lines.join('\n')}\n`);
}

function comparisonLines({ question, winner, loser, decidedBy }: VectorComparison): string[] {
  const rows = fieldsOf(winner.vector).map((field) => [
    fieldName(winner.vector, field),
    fieldText(winner.vector, field),
    fieldText(loser.vector, field),
    field === decidedBy ? '<- decides' : '',
  ]);
  const table = [['', winner.label, loser.label, ''], ...rows];
  const widths = [0, 1, 2].map((column) => Math.max(...table.map((row) => row[column]!.length)));
  return [
    '',
    question,
    ...table.map((row) => `  ${row.map((cell, i) => cell.padEnd(widths[i] ?? 0)).join('  ')}`.trimEnd()),
  ];
}

/** `knot-path explain`. */
export const explainCommand: Verb = (program) =>
  void program
    .command('explain')
    .description('why a port has its role, in words')
    .argument('<file>', 'design document, - for standard input')
    .argument('<switch>', 'id of a switch')
    .argument('<port>', 'id of one of its ports')
    .requiredOption('--tree <id>', 'the tree: cst, vlan:15')
    .action(runExplain);
