/** Saving several files in one archive. */
import { strToU8, zipSync } from 'fflate';
import { saveFile } from './saveFile';

/** `name` without its end; folders in the names of files are folders there. */
export function saveAll(name: string, files: readonly { readonly name: string; readonly text: string }[]): void {
  const zipped = zipSync(Object.fromEntries(files.map(({ name: each, text }) => [each, strToU8(text)])));
  saveFile(`${name}.zip`, 'application/zip', zipped);
}
