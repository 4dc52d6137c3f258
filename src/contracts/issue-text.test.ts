import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { protocolSchema } from './protocol';
import { runDocumentSchema } from './run-document';
import { fieldText, issueText } from './issue-text';

const said = (schema: z.ZodType, value: unknown): string[] =>
  (schema.safeParse(value).error?.issues ?? []).map((i) => `${fieldText(i.path)} ${issueText(i)}`);

describe('what is wrong with a field', () => {
  it('is said in words, with what would be accepted', () => {
    const schema = z.strictObject({
      name: z.string().min(1),
      long: z.string().max(3),
      gain: z.number().min(-40).max(120),
      more: z.number().positive(),
      count: z.int(),
      kind: z.enum(['a', 'b']),
      list: z.array(z.string()).min(1).max(2),
    });
    const wrong = { name: '', long: 'abcd', gain: 121, more: 0, kind: 'c', list: [], further: 1 };
    expect(said(schema, wrong)).toEqual([
      'name must not be empty',
      'long must have at most 3 characters',
      'gain must be at most 120',
      'more must be more than 0',
      'count must be a number; it is missing',
      'kind must be one of: a, b',
      'list must hold at least 1',
      'null holds a field that is not known: further',
    ]);
  });

  it('says so where nothing is taken at all', () => {
    expect(said(z.undefined(), { much: 1 })).toEqual(['null nothing is taken here']);
  });

  it('never is a pattern: short names say how they are written', () => {
    const named = said(protocolSchema, { id: 'My Protocol', version: 1, name: 'P', category: 'microphone', steps: [] });
    expect(named[0]).toMatch(/^id must be lower-case letters, digits and hyphens/);
    for (const schema of [protocolSchema, runDocumentSchema])
      for (const text of said(schema, { id: '!', takes: [{ file: '!', step: 1 }], specimen: { maker: '' }, date: 'x' }))
        expect(text).not.toMatch(/pattern|\/\^|expected|received/i);
  });

  it('keeps the words of the contracts, and names the place', () => {
    const schema = z.object({ takes: z.array(z.object({ gainDb: z.number({ error: 'needs its gain' }) })) });
    expect(said(schema, { takes: [{ gainDb: 1 }, {}] })).toEqual(['takes[1].gainDb needs its gain']);
  });
});
