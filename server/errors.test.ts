import type { Request, Response } from 'express';
import { pino } from 'pino';
import { expect, test } from 'vitest';
import { errorHandler, HttpError } from './errors';
import { Busy, Cancelled, TookTooLong } from './solids/pool';

/** What a caller gets of an error. */
function answered(error: unknown): { status: number; code: string; message: string } {
  let status = 0;
  let said: { code: string; message: string } | undefined;
  const response = {
    headersSent: false,
    status(code: number) {
      status = code;
      return response;
    },
    json(body: { error: { code: string; message: string } }) {
      said = body.error;
    },
  };
  const request = { method: 'GET', path: '/' } as Request;
  errorHandler(pino({ level: 'silent' }))(error, request, response as unknown as Response, () => {});
  return { status, code: said!.code, message: said!.message };
}

test('work that was ended, or has to wait, says what to do; what nobody expected says nothing of itself', () => {
  expect(answered(new TookTooLong('build'))).toMatchObject({ status: 422, code: 'took-too-long' });
  expect(answered(new Cancelled())).toMatchObject({ status: 409, code: 'cancelled' });
  expect(answered(new Busy())).toMatchObject({ status: 503, code: 'busy' });
  expect(answered(new HttpError(418, 'teapot', 'No.'))).toMatchObject({ status: 418, message: 'No.' });
  const secret = answered(new Error('/home/somebody/secret'));
  expect(secret.status).toBe(500);
  expect(secret.message).not.toContain('secret');
});
