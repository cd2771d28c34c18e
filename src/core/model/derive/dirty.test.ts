import { fernhollow } from '../../demo/demos';
import { edit } from '../../edit/edit';
import { commandSchema } from '../../edit/commands';
import { dirtyBetween } from './dirty';

const demo = fernhollow();
const after = (command: object) => {
  const edited = edit(demo, commandSchema.parse(command));
  if (!edited.ok) throw new Error(edited.error.path);
  return dirtyBetween(demo, edited.value.design);
};
const none = new Set();
const port = { switch: 'ridge-a', port: '1' };

describe('what is solved, simulated or laid out again', () => {
  it.each([
    [
      { do: 'rename-design', name: 'other' },
      { trees: none, wiring: false, run: false, runOfAll: false, layout: false },
    ],
    [
      { do: 'keep-scenario', scenario: { id: 's9', name: 'x', actions: [] } },
      { trees: none, wiring: false, run: false, runOfAll: false, layout: false },
    ],
    [
      { do: 'set-vlan', vlan: 15, load: 7 },
      { trees: none, wiring: false, run: false, runOfAll: false, layout: false },
    ],
    [
      { do: 'set-observed', observed: [] },
      { trees: none, wiring: false, run: false, runOfAll: false, layout: false },
    ],
    [
      { do: 'set-switch', switch: 'ridge-a', tier: 'access' },
      { trees: none, wiring: false, run: false, runOfAll: false, layout: true },
    ],
    [
      { do: 'set-link', link: 'l1', delay: 900 },
      { trees: none, wiring: false, run: true, runOfAll: true, layout: false },
    ],
    [
      { do: 'set-port', ...port, loopGuard: true },
      { trees: none, wiring: false, run: true, runOfAll: true, layout: false },
    ],
    [
      { do: 'set-port-cost', ...port, tree: 'vlan:15', cost: 9 },
      { trees: new Set(['vlan:15']), wiring: false, run: true, runOfAll: false, layout: false },
    ],
    [
      { do: 'set-port-cost', ...port, tree: null, cost: 9 },
      { trees: 'all', wiring: false, run: true, runOfAll: true, layout: true },
    ],
    [
      { do: 'set-link', link: 'l1', up: false },
      { trees: 'all', wiring: true, run: true, runOfAll: true, layout: true },
    ],
    [
      { do: 'remove-vlan', vlan: 15 },
      { trees: 'all', wiring: true, run: true, runOfAll: true, layout: true },
    ],
  ])('after %j', (command, dirty) => expect(after(command)).toEqual(dirty));
});
