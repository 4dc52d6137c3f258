import { z } from 'zod';
import { archiveStateSchema } from './archive';
import { deviceSchema } from './devices';
import { finishUploadSchema, newUploadSchema, uploadIdSchema, uploadSchema } from './upload';
import { categorySchema, daySchema, idSchema, sha256Schema } from './common';
import { clipSchema, waveformSchema, channelClipsSchema } from './clip';
import { jobSchema } from './events';
import { exchangeRateSchema, newRatesSchema } from './exchange-rate';
import { kindDocumentSchema, kindSchema } from './kind';
import { protocolSchema } from './protocol';
import { rankingInputsSchema, rankingOnDaySchema, rankRowSchema } from './ranking';
import { rubricSchema, rubricVersionSchema } from './rubric';
import { importResultSchema, newRunSchema } from './run-document';
import { editionSchema } from './edition';
import { newSiteSchema, packingSchema, siteReportSchema } from './site';
import {
  heldReviewSchema,
  houseSchema,
  newReviewSchema,
  reviewIdsSchema,
  reviewOfUnitSchema,
  reviewRowSchema,
  reviewSchema,
  savedReviewSchema,
} from './review';
import { newSavedListSchema, savedListSchema } from './saved-list';
import { sessionSchema } from './session';
import { newSheetEntriesSchema } from './sheet';
import { correctionSchema, newCorrectionSchema } from './correction';
import {
  newUnitSchema,
  custodySchema,
  newPointsSchema,
  newPriceSchema,
  specimenRowSchema,
  specimenSheetSchema,
} from './specimen';
import { newRelationSchema } from './relation';
import { newCountingSchema, newVariantSchema } from './variant';
import { newRemovalSchema, removableSchema, removalPreviewSchema, removalSchema } from './removal';
import { statusSchema } from './status';
import { unitAnswerSchema } from './unit-answer';
import { segmentChoiceSchema, spectrogramSchema, takePageSchema } from './take-page';
import { benchPartsSchema } from './bench';
import {
  bridgesSchema,
  phonemeBalanceSchema,
  protocolVersionSchema,
  saveProtocolSchema,
  textBodySchema,
} from './protocol-page';
import {
  finishedRecordingSchema,
  finishRecordingSchema,
  newRecordingSchema,
  recordingIdSchema,
  recordingSchema,
} from './recording';
import { calibrationSchema, newCalibrationSchema, rigDocumentSchema, rigSchema } from './rig';
import {
  byDaySchema,
  cutPiecesSchema,
  cutRequestSchema,
  findCutsSchema,
  foundCutsSchema,
  correctSlotTakeSchema,
  decideTakeSchema,
  dueUnitSchema,
  finishSlotSchema,
  heldSessionSchema,
  matchProposalSchema,
  matchRequestSchema,
  matchStepsSchema,
  newPlanSchema,
  newSlotTakeSchema,
  planRowSchema,
  planSchema,
  readingSchema,
  slotTakeSchema,
  unitEventSchema,
} from './session-plan';
import { tableReadingSchema } from './table-reading';
import {
  compareCandidateSchema,
  compareRequestSchema,
  compareSetSchema,
  compareTableSchema,
  laneDifferenceSchema,
  newCompareSetSchema,
} from './compare';
import {
  aboutListenerSchema,
  headphonesSchema,
  importAnswersSchema,
  importedSchema,
  joinSchema,
  joinedSchema,
  sameListenerSchema,
  keySchema,
  leaveOutSchema,
  newTestSchema,
  performerAnswerSchema,
  revealSchema,
  sendAnswerSchema,
  sittingStateSchema,
  testPageSchema,
  testRowSchema,
} from './listening';
import { vocabularySchema, wordMeaningSchema, wordPageSchema, wordSchema } from './vocabulary';
import { panelCommandSchema, panelPageSchema, panelSeatSchema, seatCommandSchema } from './live-panel';
import { characterSchema } from './character';
import { keepReturnedSchema, keptReturnedSchema, readReturnedSchema, returnedSchema } from './blind-pack';
import {
  placeAnswerSchema,
  placeRequestSchema,
  placeUndoSchema,
  placingSchema,
  scaleRequestSchema,
  scaleSchema,
} from './scale';

/** Who may call: the owner (this machine, and devices that showed the token), or listeners as well. */
export type Who = 'owner' | 'listener';

/** One way to talk to the server. Paths are in Express' form; bodies and answers are JSON. */
export interface Endpoint<Params extends z.ZodType, Body extends z.ZodType, Answer extends z.ZodType> {
  readonly method: 'get' | 'post';
  readonly path: string;
  readonly summary: string;
  readonly who: Who;
  readonly params: Params;
  readonly body: Body;
  readonly answer: Answer;
}

const none = z.object({});
const nothing = z.undefined();
const done = z.object({ ok: z.literal(true) });
const addedSchema = z.object({ id: z.string() });
const byId = z.object({ id: idSchema });
const byCategory = z.object({ category: categorySchema });
const bySha = z.object({ sha256: sha256Schema });
const byRecording = z.object({ id: recordingIdSchema });
const byUpload = z.object({ id: uploadIdSchema });
const byKey = z.object({ key: keySchema });
const bySlugAndVersions = z.object({
  slug: z.string(),
  from: z.coerce.number<string>().int().min(1),
  to: z.coerce.number<string>().int().min(1),
});

/** Routes of a listener's page: the key in the path is what lets in. Everything else is the owner's. */
const LISTENER_ROUTES = [
  '/api/listen/join/:key',
  '/api/listen/:key',
  '/api/listen/:key/about',
  '/api/listen/:key/headphones',
  '/api/listen/:key/answers',
  '/api/listen/:key/reveal',
  '/api/listen/:key/clips/:trial/:slot',
] as const;
const whoCalls = (path: string): Who => ((LISTENER_ROUTES as readonly string[]).includes(path) ? 'listener' : 'owner');

const get = <P extends z.ZodType, A extends z.ZodType>(path: string, summary: string, params: P, answer: A) =>
  ({ method: 'get', path, summary, who: whoCalls(path), params, body: nothing, answer }) as const satisfies Endpoint<
    P,
    typeof nothing,
    A
  >;
const post = <P extends z.ZodType, B extends z.ZodType, A extends z.ZodType>(
  path: string,
  summary: string,
  params: P,
  body: B,
  answer: A,
) =>
  ({ method: 'post', path, summary, who: whoCalls(path), params, body, answer }) as const satisfies Endpoint<P, B, A>;

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
  addRelation: post(
    '/api/specimens/:id/relations',
    'Note how a unit stands to another one, or what it needs',
    byId,
    newRelationSchema,
    addedSchema,
  ),
  addVariant: post(
    '/api/specimens/:id/variants',
    'Note another configuration of a unit, which has runs and figures of its own',
    byId,
    newVariantSchema,
    addedSchema,
  ),
  countVariant: post(
    '/api/specimens/:id/counting',
    'Say which configuration of a unit stands in rankings',
    byId,
    newCountingSchema,
    done,
  ),
  endRelation: post('/api/relations/:id/end', 'A relation does not hold any more', byId, nothing, done),
  fillSheet: post(
    '/api/specimens/:id/sheet',
    'Fill in fields of a unit’s data sheet, or take them back',
    byId,
    newSheetEntriesSchema,
    done,
  ),
  addUnit: post('/api/specimens', 'Note a unit that has not been tested yet', none, newUnitSchema, addedSchema),
  corrections: get('/api/corrections', 'What was corrected, newest first', none, z.array(correctionSchema)),
  correctionsOfUnit: get(
    '/api/specimens/:id/corrections',
    'What was corrected of a unit, newest first',
    byId,
    z.array(correctionSchema),
  ),
  correct: post('/api/corrections', 'Correct something that was brought in', none, newCorrectionSchema, addedSchema),
  undoCorrection: post('/api/corrections/:id/undo', 'Put back what stood before a correction', byId, nothing, done),
  answersOfUnit: get(
    '/api/specimens/:id/answers',
    'What listeners answered about a unit, newest first',
    byId,
    z.array(unitAnswerSchema),
  ),
  removals: get('/api/removals', 'What was deleted for good, newest first', none, z.array(removalSchema)),
  previewRemoval: get(
    '/api/removals/:what/:id',
    'What deleting a unit, a run or a take would take with it',
    z.object({ what: removableSchema, id: idSchema }),
    removalPreviewSchema,
  ),
  remove: post(
    '/api/removals',
    'Delete a unit, a run or a take for good; asks for the name of its unit',
    none,
    newRemovalSchema,
    removalSchema,
  ),
  setCustody: post('/api/specimens/:id/custody', 'Put a unit on the desk or away', byId, custodySchema, done),
  noteEvent: post(
    '/api/specimens/:id/events',
    'Note a repair, a firmware, a day to be back',
    byId,
    unitEventSchema,
    done,
  ),
  sessions: get('/api/sessions', 'Measuring sessions, newest first', none, z.array(sessionSchema)),
  protocols: get('/api/protocols', 'All protocol versions', none, z.array(protocolSchema)),
  rubrics: get('/api/rubrics', 'The current rubric of every kind of gear that has one', none, z.array(rubricSchema)),
  rates: get(
    '/api/exchange-rates',
    'What one euro came to on each day, oldest first',
    none,
    z.array(exchangeRateSchema),
  ),
  noteRates: post('/api/exchange-rates', 'Note exchange rates: all of them or none', none, newRatesSchema, done),
  rankingOnDay: get(
    '/api/ranking/:category/on/:day',
    'What the units of a kind were ranked by on a day',
    byCategory.extend({ day: daySchema }),
    rankingOnDaySchema,
  ),
  rubricVersions: get(
    '/api/rubrics/:category',
    'All versions of the rules of a kind, newest first',
    byCategory,
    z.array(rubricVersionSchema),
  ),
  saveRubric: post(
    '/api/rubrics',
    'Save rules as the next version of their kind',
    none,
    rubricSchema,
    rubricVersionSchema,
  ),
  savedLists: get('/api/lists', 'Lists that are kept under a name', none, z.array(savedListSchema)),
  keepList: post('/api/lists', 'Keep a list under a name', none, newSavedListSchema, addedSchema),
  removeList: post('/api/lists/:id/removed', 'Remove a list that is kept', byId, nothing, done),
  unitCharacter: get(
    '/api/specimens/:id/character',
    'Words for a unit by where they come from, and what it is for',
    byId,
    characterSchema,
  ),
  reviews: get('/api/reviews', 'Reviews, the latest first', none, z.array(reviewRowSchema)),
  reviewsOfUnit: get(
    '/api/specimens/:id/reviews',
    'Reviews of a unit, the latest first, held against the facts of today',
    byId,
    z.array(reviewOfUnitSchema),
  ),
  heldReviews: get(
    '/api/held-reviews/:ids',
    'Reviews, up to sixty, held against the facts of today; those that are there no more are left out',
    z.object({ ids: reviewIdsSchema }),
    z.array(heldReviewSchema),
  ),
  openReview: post('/api/reviews', 'Begin a review of a unit', none, newReviewSchema, addedSchema),
  review: get(
    '/api/reviews/:id',
    'A review with what its rules propose and what has changed since it was written',
    byId,
    reviewSchema,
  ),
  saveReview: post(
    '/api/reviews/:id',
    'Save what is written; of two that go on from one revision, the second is told',
    byId,
    savedReviewSchema,
    reviewSchema,
  ),
  discardReview: post('/api/reviews/:id/discard', 'Throw away a review that was never published', byId, nothing, done),
  publishReview: post(
    '/api/reviews/:id/editions',
    'Freeze what is written as the next edition',
    byId,
    z.strictObject({ revision: z.int().min(1) }),
    reviewSchema,
  ),
  edition: get('/api/editions/:id', 'An edition as it was published', byId, editionSchema),
  editionSize: get(
    '/api/editions/:id/size/:clips',
    'How large one HTML file of an edition would be with its clips, in bytes, and how large it may be',
    byId.extend({ clips: packingSchema }),
    z.object({ bytes: z.int(), most: z.int() }),
  ),
  publishSite: post(
    '/api/site',
    'Write the static site of everything that is published',
    none,
    newSiteSchema,
    siteReportSchema,
  ),
  house: get('/api/house', 'How this desk reviews and publishes', none, houseSchema),
  saveHouse: post('/api/house', 'Save how this desk reviews and publishes', none, houseSchema, houseSchema),
  kinds: get('/api/kinds', 'Kinds of gear, with what was added to them', none, z.array(kindSchema)),
  saveKind: post(
    '/api/kinds',
    'Save a kind of gear as its next version, or add one',
    none,
    kindDocumentSchema,
    kindSchema,
  ),
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
  protocolVersions: get(
    '/api/protocol-versions',
    'All protocol versions with what was done by them',
    none,
    z.array(protocolVersionSchema),
  ),
  saveProtocol: post(
    '/api/protocol-versions',
    'Save a protocol version; one that was used is frozen',
    none,
    saveProtocolSchema,
    protocolVersionSchema,
  ),
  bridges: get(
    '/api/protocols/:slug/bridges/:from/:to',
    'Offsets between two versions, from units measured under both',
    bySlugAndVersions,
    bridgesSchema,
  ),
  countPhonemes: post(
    '/api/texts/phonemes',
    'How near the sounds of a text are to general English',
    none,
    textBodySchema,
    phonemeBalanceSchema,
  ),
  rigs: get('/api/rigs', 'Dated rigs with their calibrations, newest first', none, z.array(rigSchema)),
  addRig: post('/api/rigs', 'Note a rig, or a change of one', none, rigDocumentSchema, rigSchema),
  calibrate: post('/api/rigs/:id/calibrations', 'Note a calibration', byId, newCalibrationSchema, calibrationSchema),
  reading: get('/api/clips/:sha256/reading', 'Tone level and loop delay of a clip', bySha, readingSchema),
  plans: get('/api/plans', 'Sessions planned, running and done', none, z.array(planRowSchema)),
  due: get('/api/plans/due', 'Units that should be tested again', none, z.array(dueUnitSchema)),
  addPlan: post('/api/plans', 'Plan a session', none, newPlanSchema, planSchema),
  plan: get('/api/plans/:id', 'A session with its takes', byId, planSchema),
  changePlan: post('/api/plans/:id', 'Plan a session anew, before it has started', byId, newPlanSchema, planSchema),
  movePlan: post(
    '/api/plans/:id/status',
    'Start, end or cancel a session',
    byId,
    z.strictObject({ status: z.enum(['running', 'done', 'cancelled', 'planned']) }),
    planSchema,
  ),
  seeCaution: post(
    '/api/plans/:id/cautions',
    'Acknowledge a caution for this session',
    byId,
    z.strictObject({ caution: z.string() }),
    done,
  ),
  addSlotTake: post(
    '/api/slots/:id/takes',
    'Check a clip as a take of a step',
    byId,
    newSlotTakeSchema,
    slotTakeSchema,
  ),
  decideTake: post(
    '/api/slot-takes/:id',
    'Keep a take, retake it, overrule its checks',
    byId,
    decideTakeSchema,
    slotTakeSchema,
  ),
  correctSlotTake: post(
    '/api/slot-takes/:id/settings',
    'Correct what was noted with a take of a running session',
    byId,
    correctSlotTakeSchema,
    slotTakeSchema,
  ),
  fillTable: post('/api/slots/:id/table', 'Fill in a table of a step', byId, tableReadingSchema, done),
  finishSlot: post(
    '/api/slots/:id/finish',
    'Make the kept takes a run of the unit',
    byId,
    finishSlotSchema,
    importResultSchema,
  ),
  matchClips: post(
    '/api/slots/:id/matches',
    'Which clip seems to be which step',
    byId,
    matchRequestSchema,
    z.array(matchProposalSchema),
  ),
  matchSteps: post(
    '/api/matches',
    'Which clip seems to be which step of a protocol',
    none,
    matchStepsSchema,
    z.array(matchProposalSchema),
  ),
  findCuts: post('/api/cuts/search', 'Look for the takes of one long recording', none, findCutsSchema, foundCutsSchema),
  cut: post('/api/cuts', 'Cut one long recording into takes', none, cutRequestSchema, cutPiecesSchema),
  splitChannels: post(
    '/api/clips/:sha256/channels',
    'One clip for each channel of a recording',
    bySha,
    nothing,
    channelClipsSchema,
  ),
  held: get(
    '/api/days/:day',
    'What was tested on a day, and what the control unit says of it',
    byDaySchema,
    heldSessionSchema,
  ),
  recordings: get('/api/recordings', 'Recordings that have not become clips yet', none, z.array(recordingSchema)),
  startRecording: post('/api/recordings', 'Open a recording', none, newRecordingSchema, recordingSchema),
  finishRecording: post(
    '/api/recordings/:id/finish',
    'Make a recording a clip; refused while a part of it is missing',
    byRecording,
    finishRecordingSchema,
    finishedRecordingSchema,
  ),
  discardRecording: post('/api/recordings/:id/discard', 'Throw a recording away', byRecording, nothing, done),
  benchParts: get('/api/bench', 'What the simulated bench has', none, benchPartsSchema),
  compareSteps: get(
    '/api/compare/steps',
    'Steps that clips exist of',
    none,
    z.array(z.object({ category: categorySchema, step: z.string(), title: z.string(), units: z.int() })),
  ),
  compareCandidates: get(
    '/api/compare/candidates/:category/:step',
    'Clips of a step that can be compared',
    z.object({ category: categorySchema, step: z.string() }),
    z.array(compareCandidateSchema),
  ),
  compareTable: post(
    '/api/compare',
    'Clips side by side: levels, warnings, spectra',
    none,
    compareRequestSchema,
    compareTableSchema,
  ),
  compareDifference: get(
    '/api/compare/differences/:zero/:other',
    'How one clip lies to another, and differs from it',
    z.object({ zero: idSchema, other: idSchema }),
    laneDifferenceSchema,
  ),
  compareSets: get('/api/compare/sets', 'Comparisons that are kept', none, z.array(compareSetSchema)),
  compareSet: get('/api/compare/sets/:id', 'A comparison that is kept', byId, compareSetSchema),
  keepCompareSet: post('/api/compare/sets', 'Keep a comparison', none, newCompareSetSchema, compareSetSchema),
  removeCompareSet: post(
    '/api/compare/sets/:id/removed',
    'Take a comparison off the list, or put it back',
    byId,
    z.strictObject({ removed: z.boolean() }),
    done,
  ),
  listeningTests: get('/api/listening', 'Listening tests, newest first', none, z.array(testRowSchema)),
  newListeningTest: post('/api/listening', 'Set up a listening test', none, newTestSchema, testPageSchema),
  listeningTest: get('/api/listening/:id', 'A listening test; results once revealed', byId, testPageSchema),
  prepareTest: post('/api/listening/:id/prepare', 'Prepare the clips again', byId, nothing, done),
  closeTest: post('/api/listening/:id/close', 'End a test', byId, nothing, testPageSchema),
  revealTest: post('/api/listening/:id/reveal', 'End a test and show what was what', byId, nothing, testPageSchema),
  readReturned: post(
    '/api/listening/:id/returned/read',
    'Read answers that came back from a pack; nothing is kept',
    byId,
    readReturnedSchema,
    returnedSchema,
  ),
  keepReturned: post(
    '/api/listening/:id/returned',
    'Keep answers that came back from a pack',
    byId,
    keepReturnedSchema,
    keptReturnedSchema,
  ),
  performerAnswer: post(
    '/api/listening/:id/performer',
    'An order given while performing',
    byId,
    performerAnswerSchema,
    testPageSchema,
  ),
  livePanel: get('/api/listening/:id/panel', 'A live panel, for the one who leads it', byId, panelPageSchema),
  leadPanel: post(
    '/api/listening/:id/panel',
    'What the one who leads a panel does: draw, play, note, close',
    byId,
    panelCommandSchema,
    panelPageSchema,
  ),
  leaveOutSitting: post(
    '/api/listening/:id/sittings/:sitting/left-out',
    'Take the answers of a listener out of all results, or put them back',
    z.object({ id: idSchema, sitting: idSchema }),
    leaveOutSchema,
    testPageSchema,
  ),
  sameListener: post(
    '/api/listeners/:id/same-as',
    'Note that two records of listeners are one person',
    byId,
    sameListenerSchema,
    done,
  ),
  forgetAbout: post('/api/listeners/:id/forget', 'Forget what a listener said of themselves', byId, nothing, done),
  listenAddresses: get(
    '/api/listening-addresses',
    'Under which addresses other devices reach this server',
    none,
    z.object({ addresses: z.array(z.string()) }),
  ),
  joinTest: post('/api/listen/join/:key', 'Take part in a test', byKey, joinSchema, joinedSchema),
  sitting: get('/api/listen/:key', 'What a listener is asked now', byKey, sittingStateSchema),
  sittingAbout: post(
    '/api/listen/:key/about',
    'What a listener says of themselves',
    byKey,
    aboutListenerSchema,
    sittingStateSchema,
  ),
  sittingHeadphones: post(
    '/api/listen/:key/headphones',
    'What the check of the headphones found',
    byKey,
    headphonesSchema,
    sittingStateSchema,
  ),
  sittingAnswer: post('/api/listen/:key/answers', 'An answer', byKey, sendAnswerSchema, sittingStateSchema),
  sittingReveal: get('/api/listen/:key/reveal', 'The key of one’s own test, once it is revealed', byKey, revealSchema),
  panelScreen: get(
    '/api/listen/join/:key/screen',
    'What is heard in a panel now, by its letter',
    byKey,
    panelSeatSchema,
  ),
  panelSeat: get('/api/listen/:key/seat', 'A listener’s place in a live panel', byKey, panelSeatSchema),
  sitInPanel: post(
    '/api/listen/:key/seat',
    'What a listener says in a live panel',
    byKey,
    seatCommandSchema,
    panelSeatSchema,
  ),
  vocabulary: get(
    '/api/vocabulary/:category',
    'Words that listeners have said of a kind of gear, over the years',
    z.object({ category: categorySchema }),
    vocabularySchema,
  ),
  vocabularyWord: get(
    '/api/vocabulary/:category/words/:word',
    'One word, against units and figures',
    z.object({ category: categorySchema, word: wordSchema }),
    wordPageSchema,
  ),
  meanWord: post(
    '/api/vocabulary/meanings',
    'Say what a word counts as, or that it is none',
    none,
    wordMeaningSchema,
    done,
  ),
  importAnswers: post(
    '/api/scale/import',
    'Answers of tests that were run elsewhere',
    none,
    importAnswersSchema,
    importedSchema,
  ),
  scale: post('/api/scale', 'One scale over all answers', none, scaleRequestSchema, scaleSchema),
  place: post(
    '/api/scale/place/:id',
    'Where a unit settles, and what to ask next',
    byId,
    placeRequestSchema,
    placingSchema,
  ),
  placeAnswer: post(
    '/api/scale/place/:id/answers',
    'The answer to the question asked',
    byId,
    placeAnswerSchema,
    placingSchema,
  ),
  beginUpload: post('/api/uploads', 'Begin an upload in parts', none, newUploadSchema, uploadSchema),
  uploadState: get('/api/uploads/:id', 'How far an upload is', byUpload, uploadSchema),
  finishUpload: post('/api/uploads/:id/finish', 'Make a clip of an upload', byUpload, finishUploadSchema, clipSchema),
  archive: get('/api/archive', 'What lies in the archive, and what is wrong with it', none, archiveStateSchema),
  checkArchive: post(
    '/api/archive/check',
    'Read every clip and hold it against its name',
    none,
    nothing,
    archiveStateSchema,
  ),
  devices: get('/api/devices', 'Other devices that the token has let in', none, z.array(deviceSchema)),
  revokeDevice: post('/api/devices/:id/revoke', 'Shut a device out', byId, nothing, done),
  placeUndo: post(
    '/api/scale/place/:id/undo',
    'Take one’s last answer of this placing back',
    byId,
    placeUndoSchema,
    placingSchema,
  ),
} as const;

/** Paths that do not speak JSON in both directions. */
export const PLAIN_PATHS = {
  upload: '/api/clips',
  audio: '/api/clips/:sha256/audio',
  chunk: '/api/recordings/:id/chunks/:frame',
  benchTake: '/api/bench/takes',
  sweep: '/api/protocols/:slug/:version/sweep.wav',
  protocolJson: '/api/protocols/:slug/:version/protocol.json',
  unitJson: '/api/specimens/:id/measurements.json',
  unitCsv: '/api/specimens/:id/measurements.csv',
  responseText: '/api/takes/:id/response.txt',
  impulseWav: '/api/takes/:id/impulse.wav',
  blindClip: '/api/listen/:key/clips/:trial/:slot',
  compareZip: '/api/compare/export.zip',
  events: '/api/events',
  openapi: '/api/openapi.json',
  uploadPart: '/api/uploads/:id/:offset',
  photoUpload: '/api/specimens/:id/photographs',
  photo: '/api/photographs/:sha256/image',
  editionPage: '/api/editions/:id/review.html',
  editionFolder: '/api/editions/:id/review.zip',
  editionMarkdown: '/api/editions/:id/review.md',
  editionFilm: '/api/editions/:id/film.txt',
  editionDocument: '/api/editions/:id/edition.json',
  editionPack: '/api/editions/:id/pack.zip',
  editionPicture: '/api/editions/:id/pictures/:kind.svg',
  panelClip: '/api/listening/:id/panel/clips/:letter',
  blindPackZip: '/api/listening/:id/pack.zip',
  blindPackPage: '/api/listening/:id/listen.html',
  blindPackKey: '/api/listening/:id/key.json',
  rankingCsv: '/api/tables/:category/ranking.csv',
  boardCsv: '/api/tables/:category/board.csv',
  rankingJson: '/api/tables/:category/ranking.json',
  boardJson: '/api/tables/:category/board.json',
} as const;

/** How each of them is called. */
export const PLAIN_METHODS: Readonly<Record<keyof typeof PLAIN_PATHS, 'get' | 'post' | 'patch'>> = {
  upload: 'post',
  audio: 'get',
  chunk: 'post',
  benchTake: 'post',
  sweep: 'get',
  protocolJson: 'get',
  unitJson: 'get',
  unitCsv: 'get',
  responseText: 'get',
  impulseWav: 'get',
  blindClip: 'get',
  compareZip: 'get',
  events: 'get',
  openapi: 'get',
  uploadPart: 'patch',
  photoUpload: 'post',
  photo: 'get',
  editionPage: 'get',
  editionFolder: 'get',
  editionMarkdown: 'get',
  editionFilm: 'get',
  editionDocument: 'get',
  editionPack: 'get',
  editionPicture: 'get',
  panelClip: 'get',
  blindPackZip: 'get',
  blindPackPage: 'get',
  blindPackKey: 'get',
  rankingCsv: 'get',
  boardCsv: 'get',
  rankingJson: 'get',
  boardJson: 'get',
};

/** Who may call each of them. */
export const PLAIN_WHO = Object.fromEntries(
  Object.entries(PLAIN_PATHS).map(([name, path]) => [name, whoCalls(path)]),
) as Record<keyof typeof PLAIN_PATHS, Who>;
