import { z } from 'zod';
import { categorySchema, idSchema, sha256Schema } from './common';
import { clipSchema, waveformSchema } from './clip';
import { jobSchema } from './events';
import { protocolSchema } from './protocol';
import { rankingInputsSchema, rankRowSchema } from './ranking';
import { importResultSchema, newRunSchema } from './run-document';
import { sessionSchema } from './session';
import { custodySchema, newPointsSchema, newPriceSchema, specimenRowSchema, specimenSheetSchema } from './specimen';
import { statusSchema } from './status';
import { segmentChoiceSchema, spectrogramSchema, takePageSchema } from './take-page';

/** One way to talk to the server. Paths are in Express' form; bodies and answers are JSON. */
export interface Endpoint<Params extends z.ZodType, Body extends z.ZodType, Answer extends z.ZodType> {
  readonly method: 'get' | 'post';
  readonly path: string;
  readonly summary: string;
  readonly params: Params;
  readonly body: Body;
  readonly answer: Answer;
}

const none = z.object({});
const nothing = z.undefined();
const done = z.object({ ok: z.literal(true) });
const byId = z.object({ id: idSchema });
const byCategory = z.object({ category: categorySchema });
const bySha = z.object({ sha256: sha256Schema });

const get = <P extends z.ZodType, A extends z.ZodType>(path: string, summary: string, params: P, answer: A) =>
  ({ method: 'get', path, summary, params, body: nothing, answer }) as const satisfies Endpoint<P, typeof nothing, A>;
const post = <P extends z.ZodType, B extends z.ZodType, A extends z.ZodType>(
  path: string,
  summary: string,
  params: P,
  body: B,
  answer: A,
) => ({ method: 'post', path, summary, params, body, answer }) as const satisfies Endpoint<P, B, A>;

/** Every JSON endpoint: the server's routes, the page's client, and the OpenAPI document are made from this. */
export const ENDPOINTS = {
  status: get('/api/status', 'What is running here', none, statusSchema),
  jobs: get('/api/jobs', 'What runs in the background', none, z.array(jobSchema)),
  specimens: get(
    '/api/specimens',
    'Every specimen, with its latest figures and its place',
    none,
    z.array(specimenRowSchema),
  ),
  specimen: get('/api/specimens/:id', 'Everything known of one specimen', byId, specimenSheetSchema),
  givePoints: post(
    '/api/specimens/:id/points',
    'Give points by hand; older ones are kept',
    byId,
    newPointsSchema,
    done,
  ),
  notePrice: post('/api/specimens/:id/prices', 'Note a price', byId, newPriceSchema, done),
  setCustody: post('/api/specimens/:id/custody', 'Put a unit on the desk or away', byId, custodySchema, done),
  sessions: get('/api/sessions', 'Measuring sessions, newest first', none, z.array(sessionSchema)),
  protocols: get('/api/protocols', 'All protocol versions', none, z.array(protocolSchema)),
  rankingInputs: get(
    '/api/ranking/:category/inputs',
    'Facts and rules from which a ranking follows',
    byCategory,
    rankingInputsSchema,
  ),
  ranking: get('/api/ranking/:category', 'The ranking by the rubric as it is', byCategory, z.array(rankRowSchema)),
  importRun: post('/api/runs', 'Import a run whose clips were uploaded before', none, newRunSchema, importResultSchema),
  retryAnalysis: post('/api/analyses/:id/retry', 'Try a failed analysis again', byId, nothing, done),
  clip: get('/api/clips/:sha256', 'A clip of the archive', bySha, clipSchema),
  waveform: get('/api/clips/:sha256/waveform', 'Columns of a waveform', bySha, waveformSchema),
  spectrogram: get('/api/clips/:sha256/spectrogram', 'A spectrogram for eyes', bySha, spectrogramSchema),
  take: get(
    '/api/takes/:id',
    'A take with its segments and its place among the takes of its step',
    byId,
    takePageSchema,
  ),
  chooseSegments: post(
    '/api/takes/:id/segments',
    'Measure a take by segments set by hand; null goes back to the automatic ones',
    byId,
    segmentChoiceSchema,
    takePageSchema,
  ),
} as const;

/** Paths that do not speak JSON in both directions. */
export const PLAIN_PATHS = {
  upload: '/api/clips',
  audio: '/api/clips/:sha256/audio',
  unitJson: '/api/specimens/:id/measurements.json',
  unitCsv: '/api/specimens/:id/measurements.csv',
  responseText: '/api/takes/:id/response.txt',
  impulseWav: '/api/takes/:id/impulse.wav',
  events: '/api/events',
  openapi: '/api/openapi.json',
} as const;
