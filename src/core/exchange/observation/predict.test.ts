/** What settings come to is what switches say; where it is not, either something was not read, or somebody strays. */
import fc from 'fast-check';
import { fernhollow } from '../../demo/demos';
import { anyDesign } from '../../testing/networks';
import { observedAtRest } from '../../testing/observed';
import { tries } from '../../testing/runs';
import type { Observation } from './observation';
import { predict } from './predict';

const predicted = (observation: Observation) => {
  const made = predict(observation);
  if (!made.ok) throw new Error(made.error);
  return made.value;
};
const demo = observedAtRest(fernhollow());

it('has nothing to say of switches that do what the standard says', () => {
  expect(predicted(demo)).toMatchObject({ differences: [], asks: [], doubts: [] });
  fc.assert(
    fc.property(anyDesign, (design) => expect(predicted(observedAtRest(design)).differences).toEqual([])),
    { numRuns: tries(20) },
  );
});

it('names a port that forwards where it ought not to', () => {
  let strayed = '';
  const switches = demo.switches.map((sw) => ({
    ...sw,
    trees: sw.trees.map((tree) => ({
      ...tree,
      ports: tree.ports.map((port) => {
        if (strayed !== '' || port.role !== 'alternate') return port;
        strayed = sw.name;
        return { ...port, role: 'designated' as const, state: 'forwarding' as const };
      }),
    })),
  }));
  const { differences, asks } = predicted({ ...demo, switches });
  expect(differences).toMatchObject([{ harm: 'path', what: 'role', designed: 'alternate', observed: 'designated' }]);
  expect(differences[0]!.switch).toBe(strayed);
  expect(asks).toEqual([]);
});

it('says what to ask for where a switch was not read', () => {
  const switches = demo.switches.filter(({ name }) => name !== 'ridge-a');
  expect(predicted({ ...demo, switches }).asks).toContain(
    'ridge-a was told of by its neighbours and not read: read it, too.',
  );
});
