/** The parts of a page that is one file, as they were built. */
import { readFileSync } from 'node:fs';
import path from 'node:path';
import type { PageParts } from '../core/exchange/page';

const FOLDER = path.join(process.cwd(), 'dist/page');
let parts: PageParts | null = null;

export function pageParts(): PageParts {
  const read = (name: string): string => readFileSync(/* turbopackIgnore: true */ path.join(FOLDER, name), 'utf8');
  return (parts ??= { script: read('page.js'), style: read('page.css') });
}
