/** The templates that there are for a design, without what runs them. */
import type { Design } from '../../model/document';
import type { Template } from '../../model/template';
import { EXAMPLES } from './examples';

/** What commands call a template: `template:worklist`. */
export const templateKey = (name: string): string => `template:${name}`;

/** Where a template is kept. */
export type KeptIn = 'design' | 'library' | 'example';
export interface AtHand extends Template {
  readonly keptIn: KeptIn;
}

/** The templates at hand: the design's own, those of a library, and the examples; of one id the first of these. */
export function templatesOf({ templates }: Pick<Design, 'templates'>, library: readonly Template[] = []): AtHand[] {
  const all = [
    ...templates.map((each): AtHand => ({ ...each, keptIn: 'design' })),
    ...library.map((each): AtHand => ({ ...each, keptIn: 'library' })),
    ...EXAMPLES.map((each): AtHand => ({ ...each, keptIn: 'example' })),
  ];
  return all.filter(({ id }, i) => all.findIndex((each) => each.id === id) === i);
}
