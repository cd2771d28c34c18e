/** `knot-path export`, as people run it. */
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { planLines } from '../core/cabling/plan';
import { fernhollow } from '../core/demo/demos';
import { writeDesign } from '../core/model/derive/write';
import { designOf } from '../core/testing/networks';
import { clearFolder, file, folder, knotPath } from './testing';

afterAll(clearFolder);
const demo = file('demo.knot.json', writeDesign(fernhollow()));

describe('knot-path export', () => {
  it('writes a file for each switch and what the form cannot say, and replaces nothing without --force', () => {
    const out = path.join(folder, 'linux');
    const args = ['export', demo, '--as', 'linux', '--out', out];
    expect(knotPath(args)).toEqual({
      status: 0,
      stdout: `8 files in ${out}; 19 things that Linux commands cannot say: left-out.txt\n`,
      stderr: '',
    });
    expect(readdirSync(out)).toHaveLength(9);
    expect(readFileSync(path.join(out, 'lodge.linux.sh'), 'utf8')).toContain('ip link add name lodge ');
    writeFileSync(path.join(out, 'lodge.linux.sh'), 'mine');
    expect(knotPath(args)).toMatchObject({
      status: 2,
      stderr: expect.stringContaining('--force replaces them') as string,
    });
    expect(readFileSync(path.join(out, 'lodge.linux.sh'), 'utf8')).toBe('mine');
    expect(knotPath([...args, '--force']).status).toBe(0);
    expect(readFileSync(path.join(out, 'lodge.linux.sh'), 'utf8')).toContain('ip link add');
    expect(readdirSync(out)).toHaveLength(9);
  });
  it('writes what leads from a revision to the design, step by step, and folders where a form has several files', () => {
    const out = mkdtempSync(path.join(tmpdir(), 'knot-path-'));
    const before = path.join(out, 'before.json');
    const design = JSON.parse(readFileSync(demo, 'utf8')) as { switches: { id: string; priority?: number }[] };
    design.switches.find(({ id }) => id === 'lodge')!.priority = 61_440;
    writeFileSync(before, JSON.stringify(design));
    const steps = path.join(out, 'steps');
    const { status, stdout } = knotPath(['export', demo, '--as', 'ovs', '--from', before, '--out', steps]);
    expect([status, stdout]).toEqual([0, expect.stringContaining('in the order of their numbers: steps.txt')]);
    expect(readdirSync(steps).sort()).toEqual(['01-lodge.ovs.sh', 'left-out.txt', 'steps.txt']);
    expect(readFileSync(path.join(steps, '01-lodge.ovs.sh'), 'utf8')).toContain('ovs-vsctl set bridge lodge');
    expect(knotPath(['export', demo, '--as', 'ovs', '--from', demo, '--out', path.join(out, 'none')])).toMatchObject({
      status: 0,
      stdout: 'nothing to write: nothing that Open vSwitch commands can say differs\n',
    });
    const folders = path.join(out, 'folders');
    expect(knotPath(['export', demo, '--as', 'networkd', '--out', folders]).status).toBe(0);
    expect(readdirSync(path.join(folders, 'lodge'))).toContain('10-lodge.netdev');
    expect(existsSync(path.join(out, 'none'))).toBe(false);
    rmSync(out, { recursive: true });
  });

  it('writes the design as lines that make it again, and as graphs', () => {
    const out = path.join(folder, 'whole');
    for (const form of ['lines', 'graphml', 'dot'])
      expect(knotPath(['export', demo, '--as', form, '--out', out]).status).toBe(0);
    expect(readdirSync(out).sort()).toEqual(
      ['dot', 'graphml', 'lines.txt'].map((end) => `fernhollow-observatory.${end}`),
    );
    const again = planLines(designOf({}), readFileSync(path.join(out, 'fernhollow-observatory.lines.txt'), 'utf8'));
    expect(again.faults).toBe(0);
  });
  it('writes by a template that comes with the product or is kept in the design, and tells what is wrong with one', () => {
    const out = path.join(folder, 'templates');
    expect(knotPath(['export', demo, '--as', 'template:worklist', '--switch', 'lodge', '--out', out]).status).toBe(0);
    expect(readFileSync(path.join(out, 'lodge.txt'), 'utf8')).toContain('lodge: what to set');
    const template = { id: 't1', name: 'Mine', end: '.mine', text: 'a\n{{ nobody }}' };
    const own = file('own.knot.json', writeDesign({ ...fernhollow(), templates: [template] }));
    expect(knotPath(['export', own, '--as', 'template:Mine', '--out', out])).toMatchObject({
      status: 2,
      stderr: 'knot-path: --as: Mine, of ridge-a: Line 2, column 4: undefined variable: nobody\n',
    });
    expect(knotPath(['export', own, '--as', 'template:Yours', '--out', out]).stderr).toContain(
      '--as: found "template:Yours"; allowed: openconfig, linux, networkd, ovs, template:t1, template:worklist',
    );
  });

  it('writes tables, and reads changed ones back as edits or says what is wrong at its cell', () => {
    const out = path.join(folder, 'tables');
    expect(knotPath(['export', demo, '--as', 'xlsx', '--out', out]).status).toBe(0);
    expect(knotPath(['import', path.join(out, 'fernhollow-observatory.xlsx'), '--into', demo]).stdout).toBe(
      '0 changes; --out FILE writes the design with them\n',
    );
    rmSync(out, { recursive: true });
    expect(knotPath(['export', demo, '--as', 'csv', '--out', out]).stdout).toBe(`11 files in ${out}\n`);
    const costs = readFileSync(path.join(out, 'costs.csv'), 'utf8');
    const changed = file('changed.json', '');
    writeFileSync(path.join(out, 'costs.csv'), costs.replace('lodge,3,,', 'lodge,3,777,'));
    expect(knotPath(['import', out, '--into', demo, '--out', changed]).stderr).toContain('--force replaces');
    expect(knotPath(['import', out, '--into', demo, '--out', changed, '--force'])).toMatchObject({
      status: 0,
      stdout: `lodge port 3: cost from speed to 777\n1 change in ${changed}\n`,
    });
    expect(readFileSync(changed, 'utf8')).toContain('777');
    writeFileSync(path.join(out, 'costs.csv'), costs.replace('lodge,3,,', 'lodge,3,cheap,'));
    const { status, stdout } = knotPath(['import', out, '--into', demo, '--out', changed, '--force']);
    expect([status, stdout]).toEqual([2, expect.stringContaining('all trees: found “cheap”; allowed: a number')]);
    expect(knotPath(['import', demo, '--into', demo]).status).toBe(2);
    expect(knotPath(['import', path.join(out, 'nowhere'), '--into', demo]).stderr).toContain('is not there');
  });

  it('writes nothing where something is wrong', () => {
    const out = path.join(folder, 'none');
    const wrong = knotPath(['export', demo, '--as', 'openconfig', '--switch', 'nobody', '--out', out]);
    expect(wrong).toMatchObject({ status: 2, stderr: expect.stringContaining('--switch: found "nobody"') as string });
    expect(knotPath(['export', demo, '--as', 'paper', '--out', out]).status).toBe(2);
    expect(knotPath(['export', demo, '--as', 'ovs', '--out', path.join(demo, 'below')])).toMatchObject({
      status: 2,
      stdout: '',
    });
    expect(existsSync(out)).toBe(false);
  });
});

describe('knot-path report', () => {
  it('writes one file with the chapters asked for, and what has changed since', () => {
    const out = path.join(folder, 'report.html');
    const before = file('earlier.knot.json', writeDesign({ ...fernhollow(), pathCost: 'short' }));
    expect(knotPath(['report', demo, '-o', out, '--from', before])).toMatchObject({ status: 0, stderr: '' });
    const html = readFileSync(out, 'utf8');
    expect(html).toContain('From earlier.knot.json to now');
    expect(html).toMatch(/<figure><svg .*lodge/s);
    expect(html).toContain('@font-face');
    expect(knotPath(['report', demo, '-o', out, '--chapters', 'cables,roots']).stderr).toContain('--force replaces');
    expect(knotPath(['report', demo, '-o', out, '--chapters', 'cables,roots', '--force']).status).toBe(0);
    expect(readFileSync(out, 'utf8').match(/<section/g)).toHaveLength(2);
    expect(knotPath(['report', demo, '-o', out, '--chapters', 'weather']).stderr).toContain(
      '--chapters: found "weather"; allowed: summary, changes',
    );
  });
});
