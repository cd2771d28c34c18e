import { whileAsked, type Tell } from './progress';

it('hears how far it is until the answer is in, and not what arrives later', async () => {
  const heard: number[] = [];
  let late: Tell = () => undefined;
  const answer = await whileAsked(
    (share) => heard.push(share),
    (tell) => {
      late = tell;
      tell(0.5);
      return Promise.resolve('done');
    },
  );
  late(1);
  expect([answer, heard]).toEqual(['done', [0.5]]);
});

it('hears nothing after it failed either', async () => {
  const heard: number[] = [];
  let late: Tell = () => undefined;
  const asked = whileAsked(
    (share) => heard.push(share),
    (tell) => {
      late = tell;
      return Promise.reject(new Error('stopped'));
    },
  );
  await expect(asked).rejects.toThrow('stopped');
  late(1);
  expect(heard).toEqual([]);
});
