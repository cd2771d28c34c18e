import fc from 'fast-check';
import type { OpenDesign, Write } from '../../contract/api';
import { commandSchema, type Command } from '../../core/edit/commands';
import { fernhollow } from '../../core/demo/demos';
import { openDatabase } from '../../server/db/connect';
import * as service from '../../server/designService';
import { take } from '../../server/testing';
import { rebase } from './rebase';
import { tries } from '../../core/testing/runs';

const name = (sw: string, to: string): Command => commandSchema.parse({ do: 'set-switch', switch: sw, name: to });
const priority = (sw: string, value: number): Command =>
  commandSchema.parse({ do: 'set-bridge-priority', switch: sw, tree: 'vlan:15', priority: value });

it('gives what the server makes of the same writes, whatever others did to other things before', () => {
  const theirs = fc.array(fc.tuple(fc.constantFrom('ridge-a', 'ridge-b'), fc.constantFrom(0, 4096, 8192)), {
    minLength: 1,
    maxLength: 3,
  });
  const mine = fc.array(
    fc.oneof(
      fc.tuple(fc.constantFrom('lodge', 'workshop'), fc.constantFrom('x', 'y', 'z')),
      fc.constant('undo' as const),
      fc.constant('redo' as const),
    ),
    { maxLength: 6 },
  );
  fc.assert(
    fc.property(theirs, mine, (others, own) => {
      const db = openDatabase(':memory:');
      const id = take(service.createDesign(db, { do: 'demo' }));
      others.forEach(([sw, value], n) =>
        take(
          service.editDesign(db, id, take(service.openDesign(db, id)).revision, [priority(sw, value)], {
            write: `others-${n}`,
          }),
        ),
      );
      // The page made its writes on revision 0, with numbers of its own.
      const page = rebaseOwn(own);
      const open = take(service.openDesign(db, id));
      const rebased = take(rebase(open, page, new Map()));
      for (const write of rebased.writes)
        take(
          write.kind === 'edit'
            ? service.editDesign(db, id, write.base, write.commands)
            : service.stepDesign(
                db,
                id,
                write.base,
                write.kind as 'undo' | 'redo',
                write.kind === 'restore' ? 0 : write.target,
              ),
        );
      const after = take(service.openDesign(db, id));
      expect({
        design: after.design,
        revision: after.revision,
        undo: after.undo.map(({ number }) => number),
        redo: after.redo.map(({ number }) => number),
      }).toEqual({
        design: rebased.design,
        revision: rebased.revision,
        undo: rebased.undoSteps.map(({ number }) => number),
        redo: rebased.redoSteps.map(({ number }) => number),
      });
      expect(rebased.dropped).toBe(0);
    }),
    { numRuns: tries(30) },
  );
});

/** The writes of a page that starts at revision 0 of the demo and knows of nobody else. */
function rebaseOwn(own: readonly (readonly [string, string] | 'undo' | 'redo')[]): Write[] {
  const alone: OpenDesign = { id: 'x', revision: 0, design: fernhollow(), undo: [], redo: [], damage: null };
  let writes: Write[] = [];
  for (const each of own) {
    const state = take(rebase(alone, writes, new Map()));
    if (typeof each !== 'string') {
      const next = take(
        rebase(
          { ...alone, design: state.design, revision: state.revision },
          [{ kind: 'edit', base: state.revision, commands: [name(each[0], each[1])] }],
          new Map(),
        ),
      );
      if (next.revision > state.revision)
        writes = [...writes, { kind: 'edit', base: state.revision, commands: [name(each[0], each[1])] }];
    } else {
      const step = (each === 'undo' ? state.undoSteps : state.redoSteps).at(-1);
      if (step) writes = [...writes, { kind: each, base: state.revision, target: step.number }];
    }
  }
  return writes;
}

it('says which change no longer fits', () => {
  const open: OpenDesign = {
    id: 'x',
    revision: 3,
    design: { ...fernhollow(), switches: [], links: [], bundles: [], hosts: [] },
    undo: [],
    redo: [],
    damage: null,
  };
  expect(rebase(open, [{ kind: 'edit', base: 2, commands: [name('lodge', 'x')] }], new Map())).toEqual({
    ok: false,
    error: expect.stringContaining('switch lodge: found nothing') as string,
  });
});

it('leaves out an undo whose revision others have built upon', () => {
  const db = openDatabase(':memory:');
  const id = take(service.createDesign(db, { do: 'demo' }));
  take(service.editDesign(db, id, 0, [name('lodge', 'x')]));
  take(service.editDesign(db, id, 1, [priority('ridge-a', 0)]));
  const rebased = take(rebase(take(service.openDesign(db, id)), [{ kind: 'undo', base: 1, target: 1 }], new Map()));
  expect(rebased).toMatchObject({ dropped: 1, revision: 2, writes: [] });
});
