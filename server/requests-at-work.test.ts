import { expect, test } from '@jest/globals';
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import { RequestsAtWork } from './requests-at-work.ts';

const asked = (handler: RequestHandler) => handler({} as Request, {} as Response, (() => undefined) as NextFunction);

test('what is at work is waited for, whether it ends well or not; what answers at once is not', async () => {
  const atWork = new RequestsAtWork();
  asked(atWork.known(() => undefined));
  expect(await atWork.ended(0)).toBe(true);
  let end!: () => void;
  let fail!: (error: Error) => void;
  void asked(atWork.known(() => new Promise<void>((resolve) => (end = resolve))));
  const failing = asked(atWork.known(() => new Promise<void>((_, reject) => (fail = reject))));
  expect(await atWork.ended(5)).toBe(false);
  fail(new Error('no such job'));
  // Whoever handles failures still hears of it.
  await expect(failing).rejects.toThrow('no such job');
  expect(await atWork.ended(5)).toBe(false);
  end();
  expect(await atWork.ended(1000)).toBe(true);
});
