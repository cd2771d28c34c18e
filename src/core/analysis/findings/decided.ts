/** Findings with what was decided about each. */
import equal from 'fast-deep-equal';
import { oncePer } from '../../base/cache';
import type { Design } from '../../model/document';
import type { Decision } from '../../model/decision';
import type { Finding } from './finding';

const byRule = oncePer((decisions: Design['decisions']) => {
  const found = new Map<string, Decision[]>();
  for (const each of decisions) found.set(each.rule, [...(found.get(each.rule) ?? []), each]);
  return found;
});

/** What was decided about a finding: by the rule and the place, whatever its words are now; null where nothing was. */
export function decisionOn({ decisions }: Pick<Design, 'decisions'>, { rule, at }: Finding): Decision | null {
  const place = placeOf(at);
  return (
    byRule(decisions)
      .get(rule)
      ?.find((each) => equal(each.at, place)) ?? null
  );
}

/** Where a finding is, as a decision keeps it. */
export const placeOf = ({ switch: sw, port, link, trees }: Finding['at']): Decision['at'] => ({
  ...(sw === undefined ? {} : { switch: sw }),
  ...(port === undefined ? {} : { port }),
  ...(link === undefined ? {} : { link }),
  ...(trees === undefined ? {} : { trees: [...trees] }),
});

/** Findings about which something is open: those that are to stay as they are come last. */
export function openFirst(
  design: Pick<Design, 'decisions'>,
  findings: readonly Finding[],
): { readonly open: readonly Finding[]; readonly staying: readonly Finding[] } {
  const stays = (finding: Finding): boolean => decisionOn(design, finding)?.decided === 'stays';
  return { open: findings.filter((each) => !stays(each)), staying: findings.filter(stays) };
}
