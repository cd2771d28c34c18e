/** The forms of settings: one line each. */
import type { Design } from '../../model/document';
import type { SwitchId } from '../../model/ids';
import type { SettingsForm, Written } from './form';
import { linux } from './linux';
import { openConfig } from './openConfig';
import { openSwitch } from './openSwitch';
import { settingsOf } from './settings';

export const FORMS: readonly SettingsForm[] = [openConfig, linux, openSwitch];

export interface SettingsFile extends Written {
  readonly switch: SwitchId;
  /** What the switch is called. */
  readonly of: string;
  /** A file name that every file system takes, another one for each switch. */
  readonly name: string;
}

/** A file for each switch, or for those named. */
export function settingsFiles(
  design: Design,
  form: SettingsForm,
  only: readonly SwitchId[] | null = null,
): SettingsFile[] {
  const taken = new Set<string>();
  return settingsOf(design).flatMap((sw) => {
    const stem = sw.id.replaceAll(/[^A-Za-z0-9_.-]/g, '-').replace(/^\.+/, '') || 'switch';
    let name = stem;
    for (let i = 2; taken.has(name.toLowerCase()); i += 1) name = `${stem}-${i}`;
    taken.add(name.toLowerCase());
    if (only && !only.includes(sw.id)) return [];
    return [{ switch: sw.id, of: sw.name, name: `${name}${form.suffix}`, ...form.write(sw) }];
  });
}

/** What is left out, by switch, as a text that goes with the files; empty where nothing is. */
export const leftOutText = (files: readonly SettingsFile[]): string =>
  files
    .filter(({ leftOut }) => leftOut.length > 0)
    .map(({ of, leftOut }) => `${of}\n${leftOut.map((sentence) => `  ${sentence}\n`).join('')}`)
    .join('\n');
