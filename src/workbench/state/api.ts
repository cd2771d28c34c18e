/** The workbench's side of the server's routes: every answer checked, every refusal a value. */
import {
  createdSchema,
  documentSchema,
  glanceSchema,
  hereSchema,
  historySchema,
  librarySchema,
  openDesignSchema,
  refusalSchema,
  savedSchema,
  type HistoryPart,
  type NewDesign,
  type OpenDesign,
  type Presence,
  type Write,
} from '../../contract/api';
import {
  earlierSchema,
  readingAtSchema,
  readingSchema,
  watchSchema,
  type Source,
  type WatchSettings,
} from '../../contract/observe';
import type { Template } from '../../core/model/document';
import { problemText } from '../../core/model/problem';
import { readDesign } from '../../core/model/read';
import { fail, ok, type Result } from '../../core/base/result';
import { z } from '../../core/base/zod';
import { HAS_SERVER } from './reach';

/** Why a request did not do what it should. `status` 0: the server could not be reached. */
export interface ApiFailure {
  readonly status: number;
  readonly message: string;
  readonly details: readonly string[];
  readonly revision?: number | undefined;
  readonly since?: readonly string[] | undefined;
}

async function call<T extends z.ZodType>(
  method: string,
  path: string,
  body: unknown,
  schema: T,
): Promise<Result<z.output<T>, ApiFailure>> {
  if (!HAS_SERVER) return fail({ status: 0, message: 'This page is a file: it has no server.', details: [] });
  let response: Response;
  try {
    const init: RequestInit = { method };
    if (body !== undefined)
      Object.assign(init, {
        body: typeof body === 'string' ? body : JSON.stringify(body),
        headers: { 'content-type': 'application/json' },
      });
    response = await fetch(path, init);
  } catch {
    return fail({ status: 0, message: 'The Knot Path server does not answer. Is it still running?', details: [] });
  }
  const json: unknown = response.status === 204 ? null : await response.json().catch(() => undefined);
  if (response.ok) {
    const parsed = schema.safeParse(json);
    if (parsed.success) return ok(parsed.data);
  }
  const refusal = refusalSchema.safeParse(json);
  if (refusal.success) return fail({ ...refusal.data, status: response.status });
  return fail({
    status: response.status,
    message: `The server gave an answer that cannot be read (${response.status}).`,
    details: [],
  });
}

/** A design as the server has it now; the document is checked by the core. */
async function open(id: string): Promise<Result<OpenDesign, ApiFailure>> {
  const answer = await call('GET', at(id), undefined, openDesignSchema);
  if (!answer.ok) return answer;
  const design = readDesign(answer.value.design);
  return design.ok
    ? ok({ ...answer.value, design: design.value })
    : fail({
        status: 422,
        message: 'What the server has of this design cannot be read here. Load the page again.',
        details: design.error.slice(0, 3).map(problemText),
      });
}

const at = (id: string, tail = ''): string => `/api/designs/${encodeURIComponent(id)}${tail}`;
const nothing = z.null();

export const api = {
  open,
  glance: (id: string) => call('GET', at(id, '/glance'), undefined, glanceSchema),
  look: (presence: Presence) => call('POST', '/api/presence', presence, hereSchema),
  create: (wish: NewDesign) => call('POST', '/api/designs', wish, createdSchema),
  /** A document as text, which the server reads. */
  importText: (text: string) => call('POST', '/api/designs', `{"do":"import","document":${text}}`, createdSchema),
  write: (id: string, write: Write) => call('POST', at(id, '/revisions'), write, savedSchema),
  rename: (id: string, name: string) => call('PATCH', at(id), { name }, savedSchema),
  remove: (id: string) => call('DELETE', at(id), undefined, nothing),
  restore: (id: string) => call('POST', at(id, '/restore'), undefined, nothing),
  history: (id: string, part: HistoryPart = {}) =>
    call(
      'GET',
      at(
        id,
        `/history?${new URLSearchParams(Object.entries(part).map(([key, value]) => [key, String(value)])).toString()}`,
      ),
      undefined,
      historySchema,
    ),
  documentAt: (id: string, revision: number) =>
    call('GET', at(id, `/revisions/${revision}`), undefined, documentSchema),
  nameBaseline: (id: string, revision: number, name: string | null) =>
    call('PUT', at(id, `/baselines/${revision}`), { name }, nothing),
  templates: () => call('GET', '/api/templates', undefined, librarySchema),
  keepTemplate: ({ id, ...template }: Template) =>
    call('PUT', `/api/templates/${encodeURIComponent(id)}`, template, nothing),
  forgetTemplate: (id: string) => call('DELETE', `/api/templates/${encodeURIComponent(id)}`, undefined, nothing),
  /** `after`: an event; those up to it are known. */
  watch: (id: string, after: number | null = null) =>
    call('GET', at(id, `/watch${after === null ? '' : `?after=${after}`}`), undefined, watchSchema),
  earlierEvents: (id: string, before: number) =>
    call('GET', at(id, `/watch/events?before=${before}`), undefined, earlierSchema),
  setWatch: (id: string, settings: WatchSettings) => call('PUT', at(id, '/watch'), settings, nothing),
  watchDemo: (id: string) => call('POST', at(id, '/watch/demo'), undefined, nothing),
  forgetWatch: (id: string) => call('DELETE', at(id, '/watch'), undefined, nothing),
  /** What was read last at a moment, milliseconds. */
  readingAt: (id: string, moment: number) =>
    call('GET', at(id, `/watch/reading?at=${moment}`), undefined, readingAtSchema),
  reading: (id: string) => call('GET', at(id, '/reading'), undefined, readingSchema),
  startReading: (id: string, source: Source) => call('POST', at(id, '/reading'), source, nothing),
  stopReading: (id: string) => call('DELETE', at(id, '/reading'), undefined, nothing),
  pagePath: (id: string) => at(id, '/page'),
  exportPath: (id: string) => at(id, '/export'),
};
