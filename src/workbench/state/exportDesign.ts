/** The design as its file: the server's, or, where there is none, this page's own. */
import type { Design } from '../../core/model/document';
import { fileNameOf, writeDesign } from '../../core/model/derive/write';
import { saveFile } from '../ui/saveFile';
import { api } from './api';
import { HAS_SERVER } from './reach';

export function exportDesign(id: string, newest: () => Design): void {
  if (HAS_SERVER) return window.location.assign(api.exportPath(id));
  const design = newest();
  saveFile(fileNameOf(design), 'application/json', writeDesign(design));
}
