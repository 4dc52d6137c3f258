import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { ENDPOINTS } from './http';
import { openApiDocument } from './openapi';
import { rubricSchema } from './rubric';
import { protocolSchema } from './protocol';
import { runDocumentSchema, runFileNameSchema } from './run-document';
import { JSON_SCHEMAS } from './schemas';
import { measurementsPage } from './measurements-page';

const root = join(import.meta.dirname, '../..');
const rubricJson = (): Record<string, unknown> =>
  JSON.parse(readFileSync(join(root, 'src/server/seed/rubric-microphone-1.json'), 'utf8')) as Record<string, unknown>;

describe('run document', () => {
  // The example of docs/formats.md, which people copy.
  it('takes the documented example', () => {
    const text = readFileSync(join(root, 'docs/formats.md'), 'utf8');
    const example = /```json\n(\{\s*"format": "sediment-run\/1"[\s\S]*?)\n```/.exec(text)?.[1] ?? '';
    const run = runDocumentSchema.parse(JSON.parse(example));
    expect(run.takes.map((t) => t.step)).toEqual(['speech', 'silence', 'rear']);
  });

  it('fills in what may be left out, and trims names', () => {
    const run = runDocumentSchema.parse({
      format: 'sediment-run/1',
      specimen: { maker: ' Oarlock ', model: 'Purser', label: 'A', category: 'microphone' },
      date: '2026-05-02',
      protocol: 'desk-voice',
      protocolVersion: 1,
      source: 'bought',
      takes: [{ step: 'speech', file: 's.wav', gainDb: 40 }],
    });
    expect(run).toMatchObject({ prices: [], points: [], specimen: { maker: 'Oarlock' } });
  });

  it.each(['a.wav', 'A long name, with commas (2).WAV', 'ü.flac', 'x.rf64'])('takes the file name %j', (name) => {
    expect(runFileNameSchema.safeParse(name).success).toBe(true);
  });
  it.each(['', 'a', 'a.txt', '../a.wav', 'x/a.wav', 'x\\a.wav', '.a.wav', `${'a'.repeat(200)}.wav`])(
    'refuses the file name %j',
    (name) => {
      expect(runFileNameSchema.safeParse(name).success).toBe(false);
    },
  );
});

describe('rubric', () => {
  it('takes the one that ships', () => {
    expect(rubricSchema.parse(rubricJson()).criteria.map((c) => c.id)).toEqual([
      'noise',
      'rejection',
      'sound',
      'features',
      'build',
      'value',
    ]);
  });

  it('refuses knots out of order, a criterion without weight, and an unknown quantity', () => {
    const broken = (
      change: (rubric: { criteria: Record<string, unknown>[]; weights: Record<string, number> }) => void,
    ): boolean => {
      const rubric = rubricJson() as { criteria: Record<string, unknown>[]; weights: Record<string, number> };
      change(rubric);
      return rubricSchema.safeParse(rubric).success;
    };
    expect(broken(() => undefined)).toBe(true);
    expect(
      broken(
        (r) =>
          (r.criteria[0]['curve'] = [
            [0, 1],
            [0, 2],
          ]),
      ),
    ).toBe(false);
    expect(broken((r) => delete r.weights['noise'])).toBe(false);
    expect(broken((r) => (r.criteria[0]['quantity'] = 'warmth'))).toBe(false);
    expect(broken((r) => (r.criteria[0]['curve'] = [[0, 6]]))).toBe(false);
  });
});

describe('protocol', () => {
  it('takes the one that ships', () => {
    const text = readFileSync(join(root, 'src/server/seed/protocol-desk-voice-1.json'), 'utf8');
    expect(protocolSchema.parse(JSON.parse(text)).steps.map((s) => s.id)).toEqual(['speech', 'silence', 'rear']);
  });
});

describe('what is made from the contracts', () => {
  it('stands in docs as it would be made now (npm run docs)', () => {
    for (const [name, schema] of Object.entries(JSON_SCHEMAS)) {
      expect(JSON.parse(readFileSync(join(root, 'docs/schema', name), 'utf8'))).toEqual(
        JSON.parse(JSON.stringify(schema)),
      );
    }
    expect(readFileSync(join(root, 'docs/measurements.md'), 'utf8')).toBe(measurementsPage());
  });

  it('describes every endpoint once, with its path parameters', () => {
    const { paths } = openApiDocument('0') as {
      paths: Record<string, Record<string, { operationId: string; parameters?: { name: string }[] }>>;
    };
    const operations = Object.values(paths).flatMap((p) => Object.values(p));
    expect(new Set(operations.map((o) => o.operationId)).size).toBe(operations.length);
    expect(operations.length).toBe(Object.keys(ENDPOINTS).length + 3);
    expect(paths['/api/specimens/{id}/points']['post'].parameters?.map((p) => p.name)).toEqual(['id']);
  });
});
