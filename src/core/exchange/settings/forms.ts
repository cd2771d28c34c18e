/** The forms of settings: one line each. */
import type { Design } from '../../model/document';
import type { SwitchId } from '../../model/ids';
import type { SettingsForm } from './form';
import { linux } from './linux';
import { networkd } from './networkd';
import { openConfig } from './openConfig';
import { openSwitch } from './openSwitch';
import { settingsOf } from './settings';

export const FORMS: readonly SettingsForm[] = [openConfig, linux, networkd, openSwitch];

/** A file as it is saved. */
export interface NamedFile {
  readonly name: string;
  readonly text: string;
}

/** What is written for a switch. */
export interface SwitchFiles {
  readonly switch: SwitchId;
  /** What the switch is called. */
  readonly of: string;
  /** Names that every file system takes, others for each switch; none where nothing differs. */
  readonly files: readonly NamedFile[];
  /** What the form cannot say. */
  readonly leftOut: readonly string[];
}

export interface FilesOptions {
  /** Of these switches alone. */
  readonly only?: readonly SwitchId[] | null;
  /** Not the whole, but what leads from here to the design. */
  readonly from?: Design | null;
}

/** The files of every switch, or of those named; of a difference, of those at which something differs. */
export function settingsFiles(
  design: Design,
  form: SettingsForm,
  { only = null, from = null }: FilesOptions = {},
): SwitchFiles[] {
  const before = new Map(from ? settingsOf(from).map((sw) => [sw.id, sw]) : []);
  const stems = fileStems(design);
  return settingsOf(design).flatMap((sw, s) => {
    if (only && !only.includes(sw.id)) return [];
    const { files, leftOut } = form.write(sw, before.get(sw.id) ?? null);
    if (files.length === 0) return [];
    return [
      {
        switch: sw.id,
        of: sw.name,
        files: files.map(({ end, text }) => ({ name: `${stems[s]!}${end}`, text })),
        leftOut,
      },
    ];
  });
}

/** What files of switches begin with: their identifiers in letters that every file system takes, no two alike. */
export function fileStems({ switches }: Design): string[] {
  const taken = new Set<string>();
  return switches.map(({ id }) => {
    const stem = id.replaceAll(/[^A-Za-z0-9_.-]/g, '-').replace(/^[.-]+/, '') || 'switch';
    let name = stem;
    for (let i = 2; taken.has(name.toLowerCase()); i += 1) name = `${stem}-${i}`;
    taken.add(name.toLowerCase());
    return name;
  });
}

/** The file that says what a form cannot. */
export const LEFT_OUT = 'left-out.txt';

/** What is left out, by switch, as a text that goes with the files; empty where nothing is. */
export const leftOutText = (files: readonly Pick<SwitchFiles, 'of' | 'leftOut'>[]): string =>
  files
    .filter(({ leftOut }) => leftOut.length > 0)
    .map(({ of, leftOut }) => `${of}\n${leftOut.map((sentence) => `  ${sentence}\n`).join('')}`)
    .join('\n');
