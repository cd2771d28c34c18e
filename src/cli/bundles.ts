/** `knot-path bundles`. */
import { viewBundles, type BundleReport } from '../core/topology/lag/view';
import { loadDesign } from './input';

export function runBundles(file: string, options: { json?: boolean }): void {
  const bundles = viewBundles(loadDesign(file));
  if (options.json) process.stdout.write(`${JSON.stringify({ bundles })}\n`);
  else process.stdout.write(bundles.length === 0 ? 'no bundles\n' : bundles.map(bundleText).join(''));
}

function bundleText({ switch: sw, host, id, reason, members }: BundleReport): string {
  const lines = Object.entries(members).map(([port, member]) => `  ${port.padEnd(8)} ${member.reason}\n`);
  return `${sw === undefined ? `host ${host}` : `${sw} ${id}`}: ${reason}\n${lines.join('')}`;
}
