/** `knot-path solve`. */
import type { Verb } from '../verb';
import { viewTree, type TreeView } from '../../core/tree/settled';
import { loadSolution, treeCalled } from '../input';

function runSolve(file: string, options: { tree?: string[]; json?: boolean }): void {
  const { solution } = loadSolution(file);
  const trees = options.tree ? options.tree.map((id) => treeCalled(solution, id)) : solution.trees;
  const views = trees.map((tree) => viewTree(solution.network, tree));
  process.stdout.write(options.json ? `${JSON.stringify({ trees: views })}\n` : views.map(treeText).join('\n'));
}

function treeText(tree: TreeView): string {
  const lines: string[] = [tree.id];
  for (const [id, sw] of Object.entries(tree.switches)) {
    const way =
      sw.rootPort === null ? 'root' : `root ${sw.root}, root path cost ${sw.rootPathCost}, root port ${sw.rootPort}`;
    lines.push(`  ${id}: ${way}`);
    for (const [port, entry] of Object.entries(sw.ports)) {
      const member = entry.memberOf === undefined ? '' : `member of ${entry.memberOf}`;
      const part =
        'role' in entry
          ? `${entry.role.padEnd(11)} ${entry.state.padEnd(11)} cost ${String(entry.cost).padEnd(member ? 9 : 0)} ${entry.guard ? `${entry.guard} ` : ''}`
          : '';
      lines.push(`    ${port.padEnd(8)} ${part}${member}`.trimEnd());
    }
  }
  return `${lines.join('\n')}\n`;
}

/** `knot-path solve`. */
export const solveCommand: Verb = (program) =>
  void program
    .command('solve')
    .description('the settled role and state of every port')
    .argument('<file>', 'design document, - for standard input')
    .option('--tree <id...>', 'these trees only: cst, vlan:15')
    .option('--json', 'as JSON')
    .action(runSolve);
