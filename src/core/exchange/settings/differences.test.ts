/** What leads from one state to the next: after it, a switch is as if it had been set from nothing. */
import fc from 'fast-check';
import { planChange } from '../../analysis/plans/changePlan';
import { fernhollow } from '../../demo/demos';
import { editAll } from '../../edit/edit';
import type { Command } from '../../edit/commands';
import type { Design } from '../../model/document';
import { anyDesign, networkOf } from '../../testing/networks';
import { tries } from '../../testing/runs';
import type { SettingsForm } from './form';
import { FORMS, settingsFiles } from './forms';
import { STEPS, stepFiles } from './stepFiles';

const formOf = (key: string): SettingsForm => FORMS.find((form) => form.key === key)!;
const linked: Design = networkOf(
  { a: { dialect: 'stp' }, b: { dialect: 'rstp' } },
  ['a 1 = b 1', 'a 2 = b 2', 'a 3 = b 3'],
  { 'a 1': { cost: 12, vlans: { mode: 'trunk', native: 5, allowed: '5,7-9' } } },
  { bundles: [{ id: 'x', number: 1, switch: 'a', ports: ['2', '3'], hash: '3+4' }] },
);
/** Two states that have switches in common. */
const pairs = fc.oneof(
  fc.tuple(anyDesign, anyDesign),
  fc.tuple(anyDesign, fc.constant(linked)),
  fc.tuple(fc.constant(linked), anyDesign),
);

/** Texts of a switch in one form, of the whole or of what leads there. */
const written = (design: Design, form: SettingsForm, sw: string, from: Design | null = null) =>
  settingsFiles(design, form, { from }).find((each) => each.switch === sw)?.files ?? [];
const both = (before: Design, after: Design): string[] =>
  after.switches.map(({ id }) => id as string).filter((id) => before.switches.some((sw) => sw.id === id));
const linesOf = (files: readonly { readonly text: string }[]): string[] =>
  files.flatMap(({ text }) => text.split('\n')).filter((line) => /^(ip|bridge|ovs)/.test(line));

/** What commands of `ip` and `bridge` leave behind: by interface, its facts. */
function kernel(lines: readonly string[]): Map<string, Map<string, string>> {
  const all = new Map<string, Map<string, string>>();
  const of = (name: string): Map<string, string> => all.get(name) ?? all.set(name, new Map()).get(name)!;
  const put = (name: string, words: readonly string[]): void => {
    for (let i = 0; i + 1 < words.length; i += 2) of(name).set(words[i]!, words[i + 1]!);
  };
  const free = (name: string): void => {
    for (const key of [...of(name).keys()]) if (/^(master|link |vid )/.test(key)) of(name).delete(key);
  };
  for (const line of lines) {
    const words = line.replace(' 2>/dev/null || true', '').split(' ');
    const name = words[words.indexOf(words.includes('dev') ? 'dev' : 'name') + 1]!;
    const rest = words.slice(words.indexOf(name) + 1);
    if (line.startsWith('ip link add')) put(name, rest);
    else if (line.startsWith('ip link del')) {
      all.delete(name);
      for (const [other, facts] of all) if (facts.get('master') === name) free(other);
    } else if (line.startsWith('ip link set')) {
      if (rest[0] === 'up' || rest[0] === 'down') of(name).set('is', rest[0]);
      else if (rest[0] === 'nomaster') free(name);
      else {
        if (rest[0] === 'master') free(name);
        put(name, rest);
      }
    } else if (line.startsWith('bridge link set'))
      put(
        name,
        rest.map((word, i) => (i % 2 ? word : `link ${word}`)),
      );
    else if (!rest.includes('self')) {
      const [from, to = from] = rest[1]!.split('-').map(Number);
      if (rest.includes('pvid')) for (const [vid, how] of of(name)) if (how === 'pvid') of(name).set(vid, 'tagged');
      for (let vid = from!; vid <= to!; vid += 1)
        if (line.includes(' del ')) of(name).delete(`vid ${vid}`);
        else of(name).set(`vid ${vid}`, rest.includes('pvid') ? 'pvid' : 'tagged');
    }
  }
  return all;
}

/** What commands of `ovs-vsctl` leave behind: by record, its columns and keys. */
function database(lines: readonly string[]): Map<string, Map<string, string>> {
  const all = new Map<string, Map<string, string>>();
  for (const line of lines) {
    const words = line.replace(/^ovs-\S+ (--may-exist |--if-exists )?/, '').split(' ');
    const record = (name: string): Map<string, string> => all.get(name) ?? all.set(name, new Map()).get(name)!;
    if (words[0] === 'set')
      for (const word of words.slice(3)) record(words[2]!).set(...(word.split(/=(.*)/) as [string, string]));
    else if (words[0] === 'clear') record(words[2]!).delete(words[3]!);
    else if (words[0] === 'remove') record(words[2]!).delete(`${words[3]}:${words[4]}`);
    else if (words[0] === 'mod-port') record(words[2]!).set('is', words[3]!);
    else if (words[0] === 'del-port') all.delete(words[2]!);
    else if (words[0] === 'add-port') record(words[2]!);
    else if (words[0] === 'add-bond') record(words[2]!).set('members', words.slice(3).join());
    else if (words[0] === '--')
      record(/port name=(\S+)/.exec(line)![1]!).set('members', /interface name=(\S+)/.exec(line)![1]!);
  }
  return all;
}

/** Facts of the interfaces or records of the whole. What is set of a tree stays where nothing is set any more: it does nothing, or there is no way back. */
const kept = (all: Map<string, Map<string, string>>, whole: Map<string, Map<string, string>>) =>
  Object.fromEntries(
    [...whole].map(([name, facts]) => [
      name,
      Object.fromEntries(
        [...(all.get(name) ?? [])].filter(([key]) => facts.has(key) || !/^(link )?(priority|cost)$/.test(key)).sort(),
      ),
    ]),
  );

it.each([
  ['linux', kernel],
  ['ovs', database],
] as const)('leads there by commands: %s', (key, run) => {
  fc.assert(
    fc.property(pairs, ([before, after]) => {
      for (const sw of both(before, after)) {
        const whole = run(linesOf(written(after, formOf(key), sw)));
        const led = run([
          ...linesOf(written(before, formOf(key), sw)),
          ...linesOf(written(after, formOf(key), sw, before)),
        ]);
        expect(kept(led, whole)).toEqual(kept(whole, whole));
        // Bonds that are gone are gone.
        expect([...led.keys()].filter((name) => name.startsWith('bundle') && !whole.has(name))).toEqual([]);
      }
    }),
    { numRuns: tries(150) },
  );
});

it('leads there by a YANG Patch, whose places are those of the models', () => {
  fc.assert(
    fc.property(pairs, ([before, after]) => {
      for (const sw of both(before, after)) {
        const open = formOf('openconfig');
        const [file] = written(after, open, sw, before);
        const [was, is] = [before, after].map((design) => JSON.parse(written(design, open, sw)[0]!.text) as Json);
        if (!file) expect(was).toEqual(is);
        else expect(sorted(patched(was!, JSON.parse(file.text) as Patch))).toEqual(sorted(is!));
      }
    }),
    { numRuns: tries(150) },
  );
});

type Json = { [key: string]: unknown };
interface Patch {
  readonly 'ietf-yang-patch:yang-patch': {
    readonly edit: readonly { readonly operation: string; readonly target: string; readonly value?: Json }[];
  };
}
const keyOf = (entry: Json): unknown => entry.name ?? entry['vlan-id'] ?? entry['mst-id'];

/** Edits of a YANG Patch done (RFC 8072, 2.5). */
function patched(document: Json, { 'ietf-yang-patch:yang-patch': { edit } }: Patch): Json {
  const done = structuredClone(document);
  for (const { operation, target, value } of edit) {
    const steps = target.slice(1).split('/');
    let at = done;
    for (const [i, step] of steps.entries()) {
      const [name, key] = step.split('=') as [string, string | undefined];
      const last = i === steps.length - 1;
      const list = at[name] as Json[] | undefined;
      const found =
        key === undefined ? -1 : (list ?? []).findIndex((entry) => String(keyOf(entry)) === decodeURIComponent(key));
      if (!last) at = (key === undefined ? at[name] : list![found]) as Json;
      else if (operation === 'remove') {
        if (key === undefined) delete at[name];
        else list!.splice(found, 1);
      } else if (key === undefined) at[name] = value![name];
      else at[name] = [...(list ?? []), ...(value![name] as Json[])];
    }
  }
  return done;
}

/** The order of a list's entries means nothing there, nor does an empty list. */
function sorted(value: unknown): unknown {
  if (Array.isArray(value)) {
    const all = value.map(sorted);
    return all.every((entry) => typeof entry === 'object')
      ? (all as Json[]).sort((a, b) => String(keyOf(a)).localeCompare(String(keyOf(b))))
      : all;
  }
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value)
      .map(([key, each]) => [key, sorted(each)] as const)
      .filter(([, each]) => !(Array.isArray(each) && each.length === 0))
      .sort(([a], [b]) => a.localeCompare(b)),
  );
}

it('writes those files of systemd-networkd that are others, and names those that go', () => {
  const files = (design: Design, from: Design | null = null) =>
    new Map(written(design, formOf('networkd'), 'a', from).map(({ name, text }) => [name, text]));
  const edited = done(linked, [
    { do: 'remove-bundle', bundle: 'x' as never },
    { do: 'set-port-cost', switch: 'a' as never, port: '1' as never, tree: null, cost: 99 },
  ]);
  const difference = files(edited, linked);
  expect(difference.get('a/files-to-delete.txt')).toBe('20-bundle1.netdev\n30-bundle1.network\n');
  expect([...difference.keys()].sort()).toEqual(
    ['a/30-port1.network', 'a/30-port2.network', 'a/30-port3.network', 'a/files-to-delete.txt'].sort(),
  );
  expect(files(edited).get('a/30-port1.network')).toContain('Cost=99');
});

it('writes the steps of a plan in its order, each with what it sets alone, and says what to check', () => {
  const before = fernhollow();
  const after = done(before, [
    { do: 'set-bridge-priority', switch: 'ridge-a' as never, tree: 'vlan:15' as never, priority: 61440 },
    { do: 'set-port-cost', switch: 'workshop' as never, port: '1' as never, tree: 'vlan:25' as never, cost: 777 },
  ]);
  const change = planChange(before, after);
  if (!change.ok) throw new Error(change.error);
  const { plan, judged } = change.value;
  const found = stepFiles(before, plan, judged, formOf('openconfig'), 'a change');
  if (!found.ok) throw new Error(found.error);
  const { files } = found.value;
  expect(files.map(({ name }) => name)).toEqual([
    ...plan.steps.map((step, i) => `0${i + 1}-${step.switch!}.openconfig-patch.json`),
    STEPS,
  ]);
  const steps = files.at(-1)!.text;
  expect(steps).toMatch(/^a change\n\n1\. /);
  expect(steps).toContain('Check after');
  const ridge = files.find(({ name }) => name.includes('ridge-a'))!.text;
  expect(ridge).toContain('/bridge-priority');
  expect(ridge).not.toContain('777');
});

function done(design: Design, commands: readonly Command[]): Design {
  const edited = editAll(design, commands);
  if (!edited.ok) throw new Error(edited.error.found);
  return edited.value.design;
}
