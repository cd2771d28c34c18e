/** Bodies in, answers out: every route goes through here, so every refusal reads alike. */
import { MAX_BODY, type Body, type BodyName, type Refusal } from '../contract/api';
import { fail, ok, type Result } from '../core/base/result';
import { isFull } from './db/trouble';
import { inWorker } from './heavy/run';
import { runTask, type ReadyWish, type Refused, type Task } from './heavy/task';
import { log } from './log';

/** Bodies larger than this, in characters, are read in a worker. */
const SMALL = 64 * 1024;

/** Reads a JSON body of at most `MAX_BODY` octets and checks it. */
export const readBody = <N extends BodyName>(request: Request, name: N): Promise<Result<Body<N>, Refused>> =>
  readAs(request, (text) => ({ kind: 'body', name, text }));

/** The same for a new design, whose document has been read. */
export const readNewDesign = (request: Request): Promise<Result<ReadyWish, Refused>> =>
  readAs(request, (text) => ({ kind: 'new-design', text }));

async function readAs<T>(request: Request, taskOf: (text: string) => Task): Promise<Result<T, Refused>> {
  const text = await readText(request);
  if (!text.ok) return text;
  const task = taskOf(text.value);
  return text.value.length <= SMALL ? (runTask(task) as Result<T, Refused>) : inWorker<T>(task);
}

/** The body as text, read no further than the limit, whatever length the request claims. */
async function readText(request: Request): Promise<Result<string, Refused>> {
  const tooLarge = fail({ status: 413, message: `This is too large: ${MAX_BODY / 1024 / 1024} MiB is the limit.` });
  if (Number(request.headers.get('content-length') ?? 0) > MAX_BODY) return tooLarge;
  const chunks: Uint8Array[] = [];
  let size = 0;
  for await (const chunk of request.body ?? []) {
    size += chunk.byteLength;
    if (size > MAX_BODY) return tooLarge;
    chunks.push(chunk);
  }
  try {
    return ok(new TextDecoder('utf-8', { fatal: true }).decode(Buffer.concat(chunks)));
  } catch {
    return fail({ status: 400, message: 'The request is not UTF-8 text.' });
  }
}

/** A refusal as a response. */
export function refuse({ status, ...refusal }: Refused): Response {
  return Response.json(refusal satisfies Refusal, { status });
}

/** Runs a handler; what it did not expect is logged and answered without its innards. Nothing that it says is kept by caches. */
export async function answer(handler: () => Promise<Response> | Response): Promise<Response> {
  const response = await handled(handler);
  if (!response.headers.has('cache-control')) response.headers.set('cache-control', 'no-store');
  return response;
}

async function handled(handler: () => Promise<Response> | Response): Promise<Response> {
  try {
    return await handler();
  } catch (error) {
    log.error({ error }, 'a request failed');
    if (isFull(error))
      return refuse({
        status: 507,
        message: 'The disk of the server is full: nothing was saved. Your changes stay on the page and are sent again.',
      });
    return refuse({ status: 500, message: 'The server could not do this. Its log says why.' });
  }
}
