/** Lines of intents: what they mean, how they are written, what they judge. */
import fc from 'fast-check';
import { fernhollow } from '../../demo/demos';
import { editAll } from '../../edit/edit';
import type { Command } from '../../edit/commands';
import type { Design } from '../../model/document';
import type { GroupId, SwitchId } from '../../model/ids';
import { solve } from '../../tree/solve';
import { intentCompletions, intentText, judged, keptLine, readIntent, verdictOf, writeIntent } from './intents';
import { Settled } from './settled';

const edited = (design: Design, ...commands: readonly Command[]): Design => {
  const done = editAll(design, commands);
  if (!done.ok) throw new Error(done.error.found);
  return done.value.design;
};
const DEMO = edited(
  fernhollow(),
  { do: 'add-group', group: { id: 'peak' as GroupId, name: 'The peak' } },
  { do: 'put-in-group', switches: ['ridge-a', 'ridge-b'] as SwitchId[], group: 'peak' as GroupId },
);
const read = (line: string, design = DEMO) => {
  const meant = readIntent(design, line);
  if (!meant.ok) throw new Error(`${line}: ${meant.error.message}`);
  return meant.value;
};
const why = (line: string, design = DEMO): string | null => {
  const verdict = verdictOf(read(line, design).claim, new Settled(solve(design)));
  return verdict.is === 'broken' ? verdict.why : null;
};

const several = fc.uniqueArray(
  fc.constantFrom('ridge-a', 'lodge', 'group "The peak"', 'access switches', 'core switches'),
  { minLength: 1, maxLength: 3 },
);
const switches = several.map((all) => all.join(', '));
const isOne = (all: readonly string[]): boolean => all.length === 1 && /^[a-z-]+$/.test(all[0]!);
/** As many become as are named. */
const never = several.map((all) => `${all.join(', ')} never ${isOne(all) ? 'becomes' : 'become'} root`);
const placed = fc
  .tuple(several, fc.constantFrom('root of', 'standby of'))
  .map(([all, what]) => `${all.join(', ')} ${isOne(all) ? 'is' : 'are'} ${what}`);
const hosts = fc
  .uniqueArray(
    fc.constantFrom(
      'all hosts',
      '"Duty desk"',
      '"Office desk"',
      'hosts of vlan 15,25',
      'hosts of lodge',
      'hosts of group "The peak"',
    ),
    { minLength: 1, maxLength: 3 },
  )
  .map((all) => all.join(', '));
const places = fc.oneof(switches, fc.constantFrom('link lodge 1', 'ridge-a, link ridge-b 3, lodge'));
const trees = fc.constantFrom('all trees', 'vlan 15', 'vlan 15,25-35', 'instance 1,3');
const end = fc.constantFrom('lodge 1', 'ridge-b 3', 'lodge Uplinks');
const claim = fc.oneof(
  fc.tuple(placed, trees).map((p) => p.join(' ')),
  never,
  fc.tuple(never, fc.constantFrom('vlan 15', 'instance 1,3')).map((p) => p.join(' of ')),
  fc.tuple(end, fc.constantFrom('blocks', 'forwards'), trees).map((p) => p.join(' ')),
  fc.tuple(end, fc.constantFrom('carries', 'never carries')).map(([at, does]) => `link ${at} ${does} vlan 15,25`),
  fc
    .tuple(hosts, fc.option(places), fc.option(places), fc.option(fc.integer({ min: 0, max: 9 })))
    .map(([who, over, not, hops]) =>
      [
        `${who} reach each other`,
        ...(over === null ? [] : [`over ${over}`]),
        ...(not === null ? [] : [`not over ${not}`]),
        ...(hops === null ? [] : [`within ${hops} hops`]),
      ].join(' '),
    ),
  fc.integer({ min: 1, max: 100 }).map((n) => `no link above ${n} %`),
  fc.constantFrom('bundle lodge Uplinks is up', 'bundle lodge Uplinks is up with at least 2 members'),
  switches.map((who) => `${who} are in one region`),
  fc.constantFrom('every edge port is guarded', 'no finding', 'no finding of root-by-mac'),
);
const line = fc
  .tuple(
    fc.option(fc.uniqueArray(fc.constantFrom('link', 'switch', 'member', 'card', 'group'), { minLength: 1 })),
    claim,
  )
  .map(([kinds, rest]) => (kinds === null ? rest : `whatever ${kinds.join(' or ')} fails, ${rest}`));

it('reads every line as it writes it, with names and with ids', () => {
  fc.assert(
    fc.property(line, (text) => {
      const meant = read(text);
      expect(writeIntent(DEMO, meant)).toBe(text);
      const kept = keptLine(DEMO, meant);
      expect(intentText(DEMO, { line: kept })).toBe(text);
      expect(readIntent(DEMO, kept, true).ok).toBe(true);
    }),
  );
});

it('means the same switch under another name', () => {
  const kept = keptLine(DEMO, read('"Duty desk", "Office desk" reach each other over ridge-a'));
  const renamed = edited(DEMO, { do: 'set-switch', switch: 'ridge-a' as SwitchId, name: 'is root' });
  expect(intentText(renamed, { line: kept })).toBe('"Duty desk", "Office desk" reach each other over "is root"');
  expect(keptLine(renamed, read(intentText(renamed, { line: kept }), renamed))).toBe(kept);
});

it('stops at what it does not know, and says where', () => {
  const fault = (text: string) => {
    const meant = readIntent(DEMO, text);
    return meant.ok ? null : [text.slice(meant.error.at, meant.error.at + meant.error.length), meant.error.message];
  };
  expect(fault('ridge-x is root of vlan 15')).toEqual(['ridge-x', 'there is no switch or group ridge-x']);
  expect(fault('lodge 99 blocks vlan 15')).toEqual(['lodge 99', 'lodge has no port or bundle 99']);
  expect(fault('whatever wind fails, no finding')![0]).toBe('wind');
  expect(fault('no finding of rain')![0]).toBe('rain');
  expect(fault('ridge-a is root of vlan 15 today')).toEqual(['today', '"today" has no place here']);
  expect(fault('no link above 70 % of all')![0]).toBe('of');
  expect(fault('ridge-a, ridge-b blocks vlan 15')![0]).toBe('ridge-b');
});

it('offers what may follow', () => {
  const after = (text: string): string[] => intentCompletions(DEMO, text, text.length).options.map((each) => each.text);
  expect(after('whatever l')).toEqual(['link']);
  expect(after('ridge-a is ')).toEqual(['standby of', 'root of']);
  expect(after('link lodge ')).toContain('Uplinks');
  expect(after('ridge-a never becomes root ')).toEqual(['of']);
  expect(after('all hosts reach each other ')).toEqual(['over', 'not over', 'within']);
});

it('offers only what it takes', () => {
  fc.assert(
    fc.property(line, fc.nat(), (text, cut) => {
      const before = text.slice(0, cut % (text.length + 1));
      const { options, from } = intentCompletions(DEMO, before, before.length);
      for (const option of options) {
        const next = readIntent(DEMO, before.slice(0, from) + option.text);
        if (!next.ok && next.error.at < from + option.text.length)
          expect(next.error.message).not.toMatch(/no place here/);
      }
    }),
  );
});

describe('in the demo', () => {
  it('says who is root and who should be', () => {
    expect(why('ridge-a is root of vlan 15,25')).toBe('The root of VLANs 15,25 is lodge.');
    expect(why('access switches is root of all trees')).toBeNull();
    expect(why('access switches never become root of vlan 45')).toBe('The root of VLAN 45 is lodge.');
    expect(why('workshop is standby of all trees')).toBeNull();
  });

  it('says over what hosts reach each other', () => {
    expect(why('all hosts reach each other')).toBeNull();
    expect(why('hosts of vlan 25 reach each other not over lodge')).toBe(
      'In VLAN 25, the way from Camera recorder to Image store goes over lodge.',
    );
    expect(why('hosts of vlan 25 reach each other over link lodge 2')).toBeNull();
    expect(why('hosts of vlan 25 reach each other not over link ridge-a 7')).toBe(
      'In VLAN 25, the way from Camera recorder to Image store goes over the link at ridge-a port 7.',
    );
    expect(why('hosts of vlan 25 reach each other over link workshop 1')).toContain(
      'is dome-north, ridge-a, lodge, ridge-b',
    );
    const apart = edited(DEMO, { do: 'set-switch', switch: 'lodge' as SwitchId, up: false });
    expect(why('all hosts reach each other', apart)).toBeNull();
    const alone = edited(
      DEMO,
      ...DEMO.links
        .filter(({ a, b }) => a.switch === 'workshop' || b.switch === 'workshop')
        .map(({ id }): Command => ({ do: 'set-link', link: id, up: false })),
    );
    expect(why('all hosts reach each other', alone)).toBe('In VLAN 45, Office desk does not reach Duty desk.');
  });

  it('does not hold where it speaks of nobody', () => {
    expect(why('hosts of vlan 4000 reach each other')).toBe('There is no such host.');
    expect(why('ridge-a is root of instance 7')).toBe('There is no such tree.');
  });

  it('leads to what would mend it', () => {
    const after = (text: string): Design => {
      const verdict = verdictOf(read(text).claim, new Settled(solve(DEMO)));
      if (verdict.is !== 'broken' || !verdict.way || !('commands' in verdict.way)) throw new Error('no commands');
      return edited(DEMO, ...verdict.way.commands);
    };
    for (const text of ['ridge-a is root of all trees', 'every edge port is guarded'])
      expect(why(text, after(text))).toBeNull();
  });

  it('judges all of a design, and leaves failures for later', () => {
    const intent = (id: string, text: string) => ({ id, line: text, severity: 'must' as const, note: '' });
    const design = {
      ...DEMO,
      intents: [
        intent('a', 'all hosts reach each other'),
        intent('b', 'whatever link fails, all hosts reach each other'),
        intent('c', 'gone is root of vlan 15'),
      ],
    };
    const verdicts = judged(new Settled(solve(design)), design.intents);
    expect([...verdicts.values()].map(({ is }) => is)).toEqual(['holds', 'later', 'unreadable']);
  });
});
