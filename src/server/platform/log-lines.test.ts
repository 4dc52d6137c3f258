import { expect, it } from 'vitest';
import { z } from 'zod';
import { logLines } from './log-lines';

it('prints kind, code and place of an error, and nothing that somebody typed', () => {
  const secret = 'what Ines said of the Purser';
  const database = Object.assign(new Error(`invalid input: "${secret}"`), {
    code: '22P02',
    routine: 'scanint8',
    query: `INSERT INTO heard_word VALUES ('${secret}')`,
    params: [secret],
    detail: secret,
  });
  const parsed = z.object({ a: z.enum(['x']) }).safeParse({ a: secret });
  let json: unknown;
  try {
    JSON.parse(`{"text": ${secret}`);
  } catch (error) {
    json = error;
  }
  for (const error of [database, parsed.error, json, new Error('outer', { cause: database }), secret, { secret }]) {
    const lines = logLines(error);
    expect(lines).not.toContain('Ines');
    expect(lines).toMatch(/^unforeseen: /);
  }
  expect(logLines(database)).toMatch(/code 22P02, routine scanint8\n\s+at .*log-lines\.test/);
  expect(logLines(new Error('x', { cause: database }))).toMatch(/caused by unforeseen: Error, code 22P02/);
});
