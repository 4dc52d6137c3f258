import { z } from 'zod';
import { blindKeySchema } from './blind-pack';
import { clipSummarySchema } from './clip-summary';
import { differenceReportSchema, responseReportSchema, toneReportSchema } from './comparisons';
import { editionSchema } from './edition';
import { kindDocumentSchema } from './kind';
import { boardExportSchema, rankingExportSchema } from './kind-tables';
import { protocolSchema } from './protocol';
import { criterionSchema } from './rubric';
import { runDocumentSchema } from './run-document';
import { unitExportSchema } from './unit-export';

const document = (schema: z.ZodType, title: string, io: 'input' | 'output'): Record<string, unknown> => ({
  title,
  ...z.toJSONSchema(schema, { io, unrepresentable: 'any' }),
});

/** JSON Schemas of the open formats, by file name in docs/schema; made from the contracts. */
export const JSON_SCHEMAS: Readonly<Record<string, Record<string, unknown>>> = {
  'run-1.schema.json': document(runDocumentSchema, 'Sediment run folder, run.json, format sediment-run/1', 'input'),
  'clip-summary.schema.json': document(
    clipSummarySchema,
    'One element of the array that `sediment analyze --json` prints',
    'output',
  ),
  'response.schema.json': document(responseReportSchema, 'What `sediment response --json` prints', 'output'),
  'tone.schema.json': document(toneReportSchema, 'What `sediment tone --json` prints', 'output'),
  'difference.schema.json': document(differenceReportSchema, 'What `sediment difference --json` prints', 'output'),
  'measurements-1.schema.json': document(
    unitExportSchema,
    'All measurements of a unit, format sediment-measurements/1',
    'output',
  ),
  'edition-1.schema.json': document(editionSchema, 'An edition of a review, format sediment-edition/1', 'output'),
  'blind-key-1.schema.json': document(blindKeySchema, 'Key of a blind pack, format sediment-blind-key/1', 'output'),
  'ranking-1.schema.json': document(rankingExportSchema, 'The ranking of a kind, format sediment-ranking/1', 'output'),
  'board-1.schema.json': document(boardExportSchema, 'Every figure of a kind, format sediment-board/1', 'output'),
  'protocol.schema.json': document(protocolSchema, 'A version of a protocol', 'input'),
  'kind.schema.json': document(kindDocumentSchema, 'A kind of gear as a person has made it', 'input'),
  'criterion.schema.json': document(criterionSchema, 'One criterion of a rubric', 'input'),
};
