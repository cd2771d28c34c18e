/** `knot-path bundles`. */
import type { Verb } from '../verb';
import { viewBundles, type BundleReport } from '../../core/topology/lag/view';
import { loadDesign } from '../input';

function runBundles(file: string, options: { json?: boolean }): void {
  const bundles = viewBundles(loadDesign(file));
  if (options.json) process.stdout.write(`${JSON.stringify({ bundles })}\n`);
  else process.stdout.write(bundles.length === 0 ? 'no bundles\n' : bundles.map(bundleText).join(''));
}

function bundleText({ switch: sw, host, id, reason, members }: BundleReport): string {
  const lines = Object.entries(members).map(([port, member]) => `  ${port.padEnd(8)} ${member.reason}\n`);
  return `${sw === undefined ? `host ${host}` : `${sw} ${id}`}: ${reason}\n${lines.join('')}`;
}

/** `knot-path bundles`. */
export const bundlesCommand: Verb = (program) =>
  void program
    .command('bundles')
    .description('what LACP settles to: which bundles come up, which members are active, and why')
    .argument('<file>', 'design document, - for standard input')
    .option('--json', 'as JSON')
    .action(runBundles);
