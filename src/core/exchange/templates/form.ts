/** A template as a form of settings: it sees the neutral tree of a switch; `was` is that of an earlier revision, or nil. */
import equal from 'fast-deep-equal';
import type { Design } from '../../model/document';
import type { Template } from '../../model/template';
import type { SettingsForm } from '../settings/form';
import { FORMS } from '../settings/forms';
import type { SwitchSet } from '../settings/settings';
import { templateKey, templatesOf } from './atHand';
import { renderTemplate, type TemplateFault } from './liquid';

/** `Line 3, column 12: undefined filter: rangs`. */
export const faultText = ({ line, column, says }: TemplateFault): string => `Line ${line}, column ${column}: ${says}`;

/** A template that cannot be done to a switch. */
export class TemplateError extends Error {
  override readonly name = 'TemplateError';
  readonly fault: TemplateFault;
  constructor(template: Template, sw: SwitchSet, fault: TemplateFault) {
    super(`${template.name}, of ${sw.name}: ${faultText(fault)}`);
    this.fault = fault;
  }
}

/** Writing throws a `TemplateError` where the template is faulty. */
export const templateForm = (template: Template): SettingsForm => ({
  key: templateKey(template.id),
  name: template.name,
  says: 'A template of your own, over the tree of settings that docs/settings.md describes.',
  type: 'text/plain',
  write(sw, was) {
    if (was && equal(sw, was)) return { files: [], leftOut: [] };
    const text = renderTemplate(template.text, { ...sw, was });
    if (!text.ok) throw new TemplateError(template, sw, text.error);
    return { files: text.value.trim() === '' ? [] : [{ end: template.end, text: text.value }], leftOut: [] };
  },
});

/** Every form in which a design's settings can be written. */
export const formsOf = (design: Pick<Design, 'templates'>, library: readonly Template[] = []): SettingsForm[] => [
  ...FORMS,
  ...templatesOf(design, library).map(templateForm),
];
