/** Large and hostile documents: refused in a sentence, within their limits, while the rest goes on. */
import { fernhollow } from '../../core/demo/demos';
import { leanDesign } from '../../core/model/derive/write';
import { inWorker } from './run';
import { runTask, type Task } from './task';

const importing = (document: string): Task => ({ kind: 'new-design', text: `{"do":"import","document":${document}}` });
const bare = (more: string): string => `{"format":"knot-path-design","version":1,"name":"n","links":[],${more}}`;
const many = (count: number, item: string): string => `[${Array.from({ length: count }, () => item).join(',')}]`;

it('gives the same answer in a worker as here', async () => {
  for (const document of [JSON.stringify(leanDesign(fernhollow())), bare('"switches":[{}]'), '[]', '{"a":']) {
    expect(await inWorker(importing(document))).toEqual(runTask(importing(document)));
  }
});

it.each<[string, string, RegExp]>([
  [
    'three million empty switches',
    bare(`"switches":${many(2_700_000, '{}')}`),
    /2700000 switches; allowed: at most 2000/,
  ],
  [
    'a region with twelve hundred instances of the same VLANs',
    bare(`"switches":[],"regions":[{"id":"r","instances":${many(1200, '{"id":1,"vlans":"1-4094"}')}}]`),
    /1200 instances; allowed: at most 64/,
  ],
  [
    'two thousand regions of 64 instances',
    bare(`"switches":[],"regions":${many(2000, `{"id":"r","instances":${many(64, '{"id":1,"vlans":"1"}')}}`)}`),
    /2000 regions; allowed: at most 200/,
  ],
  [
    'two hundred regions in which everything overlaps',
    bare(`"switches":[],"regions":${many(200, `{"id":"r","instances":${many(64, '{"id":1,"vlans":"1-4094"}')}}`)}`),
    /each region once/,
  ],
  [
    'fifty thousand ports that are none',
    bare(`"switches":${many(12, `{"id":"a","mac":"02:00:00:00:00:01","ports":${many(4000, '{}')}}`)}`),
    /ports\[0\]\.id/,
  ],
  ['a hundred thousand brackets', '['.repeat(100_000), /nested more than 64 deep/],
  [
    'as many in place of a name',
    bare(`"switches":[],"notes":${'['.repeat(100_000)}${']'.repeat(100_000)}`),
    /nested more than 64 deep/,
  ],
  [
    'a VLAN set of four million characters',
    bare(`"switches":[],"regions":[{"id":"r","instances":[{"id":1,"vlans":"${'1,'.repeat(2_000_000)}1"}]}]`),
    /at most 40000 characters/,
  ],
  ['a key that objects cannot hold', bare('"switches":[],"worksheets":[{"__proto__":{}}]'), /__proto__.*another name/],
])('%s', async (_, document, text) => {
  const begun = Date.now();
  const answer = await inWorker(importing(document));
  expect(answer.ok ? '' : [answer.error.message, ...(answer.error.details ?? [])].join(' ')).toMatch(text);
  expect(answer.ok ? 0 : answer.error.details?.length).toBeLessThanOrEqual(100);
  expect(Date.now() - begun).toBeLessThan(10_000);
});

it('keeps its brackets where they are a name, and takes a name no longer than names may be', () => {
  expect(runTask(importing(bare(`"switches":[],"notes":"${'['.repeat(100_000)}"`)))).toMatchObject({ ok: true });
});

it('is stopped where it takes too long or too much memory, and answers others meanwhile', async () => {
  const large = importing(
    bare(
      `"switches":${many(2000, `{"id":"a","mac":"02:00:00:00:00:01","ports":${many(24, '{"id":"1","number":1}')}}`)}`,
    ),
  );
  const answers = await Promise.all([
    inWorker(large, { seconds: 0.05, memoryMiB: 512 }),
    inWorker(large, { seconds: 20, memoryMiB: 20 }),
    inWorker(importing('{}')),
  ]);
  expect(answers[0]).toMatchObject({
    ok: false,
    error: { status: 413, message: expect.stringContaining('takes longer than') as string },
  });
  expect(answers[1]).toMatchObject({
    ok: false,
    error: { status: 413, message: expect.stringContaining('does not fit into 20 MiB') as string },
  });
  expect(answers[2]).toMatchObject({ ok: false, error: { status: 422 } });
});
