import { MAX_BODY } from '../contract/api';
import { readBody, refuse } from './http';

const post = (body: BodyInit) => new Request('http://127.0.0.1/api', { method: 'POST', body });
const edit = { kind: 'edit', base: 0, commands: [{ do: 'rename-design', name: 'n' }] };

describe('a request body', () => {
  it('is taken when it says what is needed', async () => {
    expect(await readBody(post(JSON.stringify(edit)), 'write')).toEqual({ ok: true, value: edit });
  });

  it.each<[string, BodyInit, number, RegExp]>([
    ['no JSON', '{"kind":', 400, /not JSON that can be read/],
    ['not UTF-8', new Uint8Array([0x22, 0xff, 0x22]), 400, /not UTF-8/],
    ['more than 8 MiB', new Uint8Array(MAX_BODY + 1), 413, /8 MiB/],
    ['an unknown key', JSON.stringify({ ...edit, colour: 1 }), 422, /colour: found a key/],
    ['an unknown command', JSON.stringify({ ...edit, commands: [{ do: 'dance' }] }), 422, /commands\[0\]/],
    [
      'a priority off the grid',
      JSON.stringify({ ...edit, commands: [{ do: 'set-bridge-priority', switch: 'a', tree: null, priority: 5 }] }),
      422,
      /commands\[0\]\.priority: found 5; allowed: 0 to 61440/,
    ],
    ['no base', JSON.stringify({ ...edit, base: undefined }), 422, /base: found nothing/],
  ])('is refused with %s', async (_, body, status, text) => {
    const result = await readBody(post(body), 'write');
    if (result.ok) throw new Error('was taken');
    expect(result.error.status).toBe(status);
    expect([result.error.message, ...(result.error.details ?? [])].join(' ')).toMatch(text);
    expect(refuse(result.error).status).toBe(status);
  });

  it('is not read to its end when it is longer than it claims', async () => {
    let sent = 0;
    const endless = new ReadableStream({
      pull(controller) {
        sent += 1;
        controller.enqueue(new Uint8Array(1024 * 1024));
      },
    });
    const request = new Request('http://127.0.0.1/api', {
      method: 'POST',
      body: endless,
      duplex: 'half',
    } as RequestInit);
    expect(await readBody(request, 'write')).toMatchObject({ ok: false, error: { status: 413 } });
    expect(sent).toBeLessThan(15);
  });
});
