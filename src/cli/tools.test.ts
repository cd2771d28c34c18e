/** What is exported, read by tools that are not ours; each is left out where it is not installed. */
import { spawnSync } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { fernhollow, townOffice, valleyStation } from '../core/demo/demos';
import { writeDesign } from '../core/model/derive/write';
import { networkOf } from '../core/testing/networks';
import { clearFolder, file, folder, knotPath } from './testing';

afterAll(clearFolder);
/** Names that a shell would read otherwise. */
const SHARP = networkOf(
  { a: { name: `rack "7" $(reboot) \`x\` ; rm -rf / # 'q'\u2028` }, b: { name: '--help' } },
  ['a 1 = b 1'],
  { 'a 2': {} },
  { hosts: [{ id: 'h', name: '<&">', mac: '02:00:00:00:00:99', attach: [{ switch: 'a', port: '2' }] }] },
);
const DESIGNS = { fernhollow: fernhollow(), valley: valleyStation(), town: townOffice(), sharp: SHARP };
const tool = (name: string) => (spawnSync(name, ['--version'], { stdio: 'ignore' }).error ? it.skip : it);
const named = Object.keys(DESIGNS) as (keyof typeof DESIGNS)[];

function exported(name: keyof typeof DESIGNS, form: string): string[] {
  const out = path.join(folder, `${name}-${form}`);
  const document = file(`${name}.knot.json`, writeDesign(DESIGNS[name]));
  expect(knotPath(['export', document, '--as', form, '--out', out, '--force'])).toMatchObject({
    status: 0,
    stderr: '',
  });
  return readdirSync(out).map((each) => path.join(out, each));
}

const accepts = (program: string, args: readonly string[]): void => {
  const { status, stdout, stderr } = spawnSync(program, args, { encoding: 'utf8' });
  expect([status, status === 0 ? '' : `${stdout}${stderr}`]).toEqual([0, '']);
};

tool('shellcheck').each(named.flatMap((name) => [[name, 'linux'] as const, [name, 'ovs'] as const]))(
  'shellcheck has nothing against scripts: %s, %s',
  (name, form) =>
    accepts(
      'shellcheck',
      exported(name, form).filter((each) => each.endsWith('.sh')),
    ),
);

tool('jq').each(named)('jq reads open models: %s', (name) => {
  for (const each of exported(name, 'openconfig').filter((one) => one.endsWith('.json'))) accepts('jq', ['.', each]);
});

tool('xmllint').each(named)('xmllint reads GraphML: %s', (name) =>
  accepts('xmllint', ['--noout', ...exported(name, 'graphml')]),
);

tool('dot').each(named)('dot reads DOT: %s', (name) =>
  accepts('dot', ['-Tcanon', '-o', '/dev/null', ...exported(name, 'dot')]),
);

// In a network namespace of its own: what the kernel does not have there is told otherwise than what `ip` does not understand.
const apart = spawnSync('unshare', ['-n', 'ip', '-V'], { stdio: 'ignore' }).status === 0 ? it : it.skip;
apart.each(named)('ip understands every line of its scripts: %s', (name) => {
  for (const each of exported(name, 'linux').filter((one) => one.endsWith('.sh'))) {
    const lines = readFileSync(each, 'utf8')
      .split('\n')
      .filter((line) => line.startsWith('ip '));
    expect(lines.length).toBeGreaterThan(1);
    const input = `${lines.map((line) => line.slice(3)).join('\n')}\n`;
    const { stderr } = spawnSync('unshare', ['-n', 'ip', '-force', '-batch', '-'], { input, encoding: 'utf8' });
    expect(stderr).not.toMatch(/garbage|is wrong: (?!Device does not exist)|invalid|usage|is unknown|unknown command/i);
  }
});
