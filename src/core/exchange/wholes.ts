/** Forms that hold the whole design in one file: one line each. */
import { linesOf } from '../cabling/print';
import { fileStemOf } from '../model/derive/write';
import type { Design } from '../model/document';
import { dot, graphMl } from './graphs';

export interface WholeForm {
  /** In commands and addresses. */
  readonly key: string;
  readonly name: string;
  readonly says: string;
  readonly suffix: string;
  readonly type: string;
  readonly write: (design: Design) => string;
}

export const WHOLES: readonly WholeForm[] = [
  {
    key: 'lines',
    name: 'Cabling lines',
    says: 'The design as lines, as the line of the Cable view reads them.',
    suffix: '.lines.txt',
    type: 'text/plain',
    write: (design) => `${linesOf(design).join('\n')}\n`,
  },
  {
    key: 'graphml',
    name: 'GraphML',
    says: 'Switches, hosts and cables as a graph, for programs that draw or count graphs.',
    suffix: '.graphml',
    type: 'application/graphml+xml',
    write: graphMl,
  },
  {
    key: 'dot',
    name: 'DOT',
    says: 'The same graph as DOT, for programs that lay graphs out.',
    suffix: '.dot',
    type: 'text/vnd.graphviz',
    write: dot,
  },
];

/** The file of a design: `fernhollow-observatory.graphml`. */
export const wholeFile = (design: Design, form: WholeForm): { readonly name: string; readonly text: string } => ({
  name: `${fileStemOf(design)}${form.suffix}`,
  text: form.write(design),
});
