/** Bodies in, answers out: every route goes through here, so every refusal reads alike. */
import { MAX_BODY, type Refusal } from '../contract/api';
import { problemText, problemsOf } from '../core/design/problem';
import { fail, ok, type Result } from '../core/result';
import type { z } from '../core/zod';
import type { Refused } from './designService';
import { log } from './log';

/** Reads a JSON body of at most `MAX_BODY` octets and checks it. */
export async function readBody<T extends z.ZodType>(request: Request, schema: T): Promise<Result<z.output<T>, Refused>> {
  const text = await readText(request);
  if (!text.ok) return text;
  let json: unknown;
  try {
    json = JSON.parse(text.value);
  } catch (error) {
    return fail({ status: 400, message: 'The request is not JSON.', details: [(error as Error).message] });
  }
  const parsed = schema.safeParse(json);
  if (parsed.success) return ok(parsed.data);
  const details = problemsOf(schema, json, parsed.error, 5).map(problemText);
  return fail({ status: 422, message: 'The request does not say what the server needs to know.', details });
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

/** Runs a handler; what it did not expect is logged and answered without its innards. */
export async function answer(handler: () => Promise<Response> | Response): Promise<Response> {
  try {
    return await handler();
  } catch (error) {
    log.error({ error }, 'a request failed');
    return refuse({ status: 500, message: 'The server could not do this. Its log says why.' });
  }
}
