import { expect, test } from '@jest/globals';
import { Started, Stopped } from './started.ts';

const turns = () => new Promise((resolve) => setImmediate(resolve));

/** Something that is there when it is told so. */
function slow() {
  let ready!: () => void;
  let fail!: (error: Error) => void;
  const there = new Promise<string>((resolve, reject) => {
    ready = () => resolve('there');
    fail = reject;
  });
  return { there, ready, fail };
}

test('what was started is stopped in the opposite order, once', async () => {
  const [started, stopped] = [new Started(), [] as string[]];
  for (const name of ['one', 'two', 'three'])
    await started.begin(
      () => Promise.resolve(name),
      (of) => () => void stopped.push(of),
    );
  await Promise.all([started.stop(), started.stop()]);
  expect(stopped).toEqual(['three', 'two', 'one']);
});

test('what is being started when a stop is asked for is waited for and stopped; whoever waits for it goes no further', async () => {
  const [started, stopped] = [new Started(), [] as string[]];
  const { there, ready } = slow();
  const begun = started.begin(
    () => there,
    (of) => () => void stopped.push(of),
  );
  const went = expect(begun).rejects.toThrow(Stopped);
  let over = false;
  const stopping = started.stop().then(() => (over = true));
  await turns();
  expect([over, started.signal.aborted]).toEqual([false, true]);
  ready();
  await stopping;
  await went;
  expect(stopped).toEqual(['there']);
});

test('after that nothing is started any more', async () => {
  const started = new Started();
  await started.stop();
  let asked = false;
  await expect(started.begin(() => Promise.resolve((asked = true)))).rejects.toThrow(Stopped);
  expect(asked).toBe(false);
  expect(() => started.mustGoOn()).toThrow(Stopped);
});

test('what fails because of a stop is told as stopped; what fails without one, as what it is', async () => {
  const started = new Started();
  await expect(started.begin(() => Promise.reject(new Error('no port')))).rejects.toThrow('no port');
  const { there, fail } = slow();
  const went = expect(started.begin(() => there)).rejects.toThrow(Stopped);
  const stopping = started.stop();
  fail(new Error('the database has gone'));
  await stopping;
  await went;
});
