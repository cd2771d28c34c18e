/** Helpers of a run without workers: what is said to them and what they answer is copied as between workers. */
import { createHelping, type Helper } from '../sim/helper';

const METHODS = Object.keys(createHelping()) as (keyof Helper)[];

export function helperBeside(): Helper {
  const helping = createHelping() as Record<keyof Helper, (...given: unknown[]) => unknown>;
  const asked =
    (method: keyof Helper) =>
    async (...given: unknown[]) => {
      const copied = structuredClone(given);
      await Promise.resolve();
      return structuredClone(helping[method](...copied));
    };
  const helper = {} as Helper;
  for (const method of METHODS) Object.assign(helper, { [method]: asked(method) });
  return helper;
}
