/** Scenarios for tests. */
import type { Scenario } from '../model/scenario';
import type { Design } from '../model/document';
import { readScenario } from '../sim/scenario/scenario';

/** Reads a scenario, failing the test where it does not fit the design. */
export function benchedScenario(design: Design, actions: readonly object[], until = 60): Scenario {
  const scenario = readScenario({ actions, until }, design);
  if (!scenario.ok) throw new Error(JSON.stringify(scenario.error));
  return scenario.value;
}

/** An hour in which a link flaps: long enough to be stopped in the middle. */
export const longScenario = (design: Design): Scenario =>
  benchedScenario(
    design,
    Array.from({ length: 350 }, (_, i) => ({
      at: 10 * i + 1,
      do: i % 2 ? 'link-up' : 'link-down',
      link: design.links[0]!.id,
    })),
    3600,
  );
