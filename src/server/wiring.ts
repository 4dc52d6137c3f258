import type { Status } from '#contracts/status';
import { openClipStore, type ClipStore } from './platform/archive/clip-store';
import { openDiskReserve } from './platform/archive/disk-reserve';
import type { Database } from './platform/db/database';
import { migrate } from './platform/db/migrate';
import { openDatabase } from './platform/db/open-database';
import { clockIn, deskZone, type Clock } from './platform/clock';
import { logLines } from './platform/log-lines';
import { migrationsFolder, packageVersion, seedFolder, speechFolder, workerFolder } from './platform/package-root';
import { AnalysisQueue } from './runs/analysis-queue';
import { Catalogue } from './catalogue/catalogue';
import { ClipDifferences } from './compare/clip-differences';
import { Compare } from './compare/compare';
import { CompareSets } from './compare/compare-sets';
import { ComparisonExport } from './compare/comparison-export';
import { Corrections } from './mending/corrections';
import { Removals } from './mending/removals';
import { UnitAnswers } from './mending/unit-answers';
import { AnswersImport } from './scale/answers-import';
import { HeardAnswers } from './scale/heard-answers';
import { VocabularyBook } from './scale/vocabulary-book';
import { HeardScale } from './scale/heard-scale';
import { Placings } from './scale/placings';
import { ScaleFit } from './scale/scale-fit';
import { ClipPreparation } from './listening/clip-preparation';
import { ListeningTests } from './listening/listening-tests';
import { LivePanels } from './listening/live-panels';
import { PerformerAnswers } from './listening/performer-answers';
import { ReturnedAnswers } from './listening/returned-answers';
import { Sittings } from './listening/sittings';
import { ClipIngest } from './runs/clip-ingest';
import { ClipPictures } from './runs/clip-pictures';
import { ClipReader } from './runs/clip-reader';
import { SweepExports } from './runs/sweep-exports';
import { TakePages } from './runs/take-pages';
import { EventHub } from './platform/event-hub';
import { Integrity } from './runs/integrity';
import { SetAside } from './platform/set-aside';
import { JobBoard } from './platform/job-board';
import { Memories } from './platform/memory';
import { BenchDevice } from './sessions/bench-device';
import { Booth } from './sessions/booth';
import { TakeCompany } from './sessions/take-company';
import { ProtocolBook } from './sessions/protocol-book';
import { Recordings } from './runs/recordings';
import { Rigs } from './rigs/rigs';
import { HeldSessions } from './sessions/held-sessions';
import { PlanPages } from './sessions/plan-pages';
import { SessionPlans } from './sessions/session-plans';
import { TakeSorting } from './runs/take-sorting';
import { RunImport } from './runs/run-import';
import { Scoring } from './catalogue/scoring';
import { KindBook, registerSavedKinds } from './catalogue/kind-book';
import { SavedLists } from './catalogue/saved-lists';
import { HouseRules } from './reviews/house-rules';
import { KindStandings } from './reviews/kind-standings';
import { Reviews } from './reviews/reviews';
import { HandedClips } from './publish/handed-clips';
import { SharedPictures } from './publish/shared-pictures';
import { Handouts } from './publish/handouts';
import { KindTables } from './publish/kind-tables';
import { BlindPacks } from './publish/blind-packs';
import { Packs } from './publish/packs';
import { Site } from './publish/site';
import { RubricBook } from './catalogue/rubric-book';
import { Photographs } from './photos/photographs';
import { FilesByHash } from './platform/archive/files-by-hash';
import { Relations } from './catalogue/relations';
import { Variants } from './catalogue/variants';
import { SheetEntries } from './catalogue/sheet-entries';
import { DueTests } from './catalogue/due-tests';
import { UnitEvents } from './catalogue/unit-events';
import { seedRules } from './catalogue/seed';
import { Uploads } from './runs/uploads';
import { openRememberingThread, openWorkerPool, type WorkerPool } from './platform/worker-pool';

/** Everything that runs, put together. */
export interface Application {
  readonly status: Status;
  readonly database: Database;
  readonly clock: Clock;
  readonly hub: EventHub;
  readonly memories: Memories;
  readonly jobs: JobBoard;
  readonly pool: WorkerPool;
  readonly store: ClipStore;
  readonly ingest: ClipIngest;
  readonly queue: AnalysisQueue;
  readonly runImport: RunImport;
  readonly catalogue: Catalogue;
  readonly scoring: Scoring;
  readonly sheets: SheetEntries;
  readonly relations: Relations;
  readonly variants: Variants;
  readonly photographs: Photographs;
  readonly rubricBook: RubricBook;
  readonly kindBook: KindBook;
  readonly savedLists: SavedLists;
  readonly house: HouseRules;
  readonly reviews: Reviews;
  readonly handouts: Handouts;
  readonly tables: KindTables;
  readonly site: Site;
  readonly packs: Packs;
  readonly blindPacks: BlindPacks;
  readonly returnedAnswers: ReturnedAnswers;
  readonly corrections: Corrections;
  readonly removals: Removals;
  readonly unitAnswers: UnitAnswers;
  readonly clips: ClipReader;
  readonly protocols: ProtocolBook;
  readonly rigs: Rigs;
  readonly plans: SessionPlans;
  readonly planPages: PlanPages;
  readonly heldSessions: HeldSessions;
  readonly dueTests: DueTests;
  readonly unitEvents: UnitEvents;
  readonly booth: Booth;
  readonly recordings: Recordings;
  readonly uploads: Uploads;
  readonly sorting: TakeSorting;
  readonly bench: BenchDevice;
  readonly takePages: TakePages;
  readonly pictures: ClipPictures;
  readonly setAside: SetAside;
  readonly integrity: Integrity;
  readonly sweeps: SweepExports;
  readonly compare: Compare;
  readonly compareSets: CompareSets;
  readonly comparisonExport: ComparisonExport;
  readonly scale: HeardScale;
  readonly placings: Placings;
  readonly answersImport: AnswersImport;
  readonly tests: ListeningTests;
  readonly listeningClips: ClipPreparation;
  readonly livePanels: LivePanels;
  readonly vocabulary: VocabularyBook;
  readonly performers: PerformerAnswers;
  readonly sittings: Sittings;
  close(): Promise<void>;
}

export interface ApplicationOptions {
  readonly folder: string;
  readonly demo?: boolean;
  /** The old database is lost: a new one is made beside the clips. */
  readonly newDatabase?: boolean;
  readonly now?: () => Date;
  /** Time zone of the desk; that of this machine where it is not set. */
  readonly zone?: string;
  /** Other task files than the built ones (tests). */
  readonly workers?: string;
  /** Threads that are there already (tests). */
  readonly pool?: WorkerPool;
  /** A database that is open already (tests). */
  readonly database?: Database;
  readonly report?: (error: unknown) => void;
}

/** Opens the database and the archive of a data folder, brings both in order, and connects the services. */
export async function openApplication(options: ApplicationOptions): Promise<Application> {
  const report = options.report ?? ((error: unknown) => console.error(logLines(error)));
  const clock = clockIn(options.zone ?? deskZone(process.env['SEDIMENT_ZONE']), options.now);
  const { now } = clock;
  const database =
    options.database ??
    (await openDatabase(options.folder, {
      reserve: openDiskReserve(options.folder),
      anew: options.newDatabase ?? false,
      now,
      report,
    }));
  await migrate(database, migrationsFolder);
  await registerSavedKinds(database);
  await seedRules(database, seedFolder, options.demo ?? false);
  const store = await openClipStore(options.folder);
  const pool = options.pool ?? openWorkerPool(options.workers ?? workerFolder);
  const hub = new EventHub();
  const memories = new Memories(hub);
  const jobs = new JobBoard(hub, now);
  const setAside = new SetAside(hub);
  const originals = new FilesByHash(options.folder, 'originals');
  const ingest = new ClipIngest(store, originals, database, pool, setAside);
  const queue = new AnalysisQueue(database, store, pool, hub, jobs, report, setAside);
  const photos = new FilesByHash(options.folder, 'photos');
  const integrity = new Integrity(options.folder, database, store, [photos, originals], setAside, jobs, now, report);
  const rigs = new Rigs(database, store, pool, hub);
  // One thread of its own: it remembers the last scale, so that one more answer is quick.
  const scalePool = openRememberingThread(options.workers ?? workerFolder);
  const heard = new HeardAnswers(database, clock, memories);
  const fit = new ScaleFit(database, scalePool, clock, memories);
  const scale = new HeardScale(database, heard, fit, hub, memories);
  const rankingPool = openRememberingThread(options.workers ?? workerFolder);
  const differences = new ClipDifferences(store, pool, memories);
  const compare = new Compare(database, differences);
  const catalogue = new Catalogue(database, rankingPool, rigs, scale, memories, clock);
  const house = new HouseRules(database);
  const planPages = new PlanPages(database, rigs);
  const protocols = new ProtocolBook(database, hub);
  const standings = new KindStandings(catalogue, pool, memories);
  const reviews = new Reviews(database, catalogue, standings, house, compare, hub, clock, packageVersion);
  const handed = new HandedClips(options.folder, store, pool);
  const sharedPictures = new SharedPictures(options.folder, pool);
  const runImport = new RunImport(database, ingest, queue, hub);
  const recordings = new Recordings(options.folder, ingest, now);
  const uploads = new Uploads(options.folder, ingest, now);
  const listeningClips = new ClipPreparation(options.folder, database, store, pool, hub, jobs, report);
  const blindPacks = new BlindPacks(database, listeningClips, house);
  const tests = new ListeningTests(database, listeningClips, scale, hub, clock);
  const pictures = new ClipPictures(options.folder, store, pool);
  /** However bad something in the archive is, the start goes on: it is reported, and named on the page "Archive". */
  const step = async (name: string, work: () => Promise<unknown>): Promise<void> => {
    await work().catch((error: unknown) => {
      report(error);
      setAside.note('job', name, 'This part of the start could not be done.');
    });
  };
  const photographs = new Photographs(database, photos, hub);
  const homes = { store, originals, pictures, handed, photos, listening: listeningClips };
  const removals = new Removals(database, homes, queue, scale, hub, now);
  // Before files are taken in that nobody has noted.
  await step('deleting what was being deleted', () => removals.finish());
  await step('taking in clips that were not noted', () => ingest.recover());
  await step('clearing up recordings', async () => {
    for (const { name, problem } of await recordings.recover()) setAside.note('recording', name, problem);
  });
  await step('clearing up uploads', () => uploads.sweep());
  await step('clearing up pictures', () => pictures.sweep());
  await step('clearing up copies for handing out', () => handed.sweep());
  await step('clearing up pictures for links', () => sharedPictures.sweep());
  await step('looking for missing clips', () => integrity.look());
  await step('taking up analyses', () => queue.recover());
  await step('preparing tests again', () => listeningClips.recover());
  integrity.start();
  return {
    status: { product: 'sediment', version: packageVersion, dataFolder: options.folder, demo: options.demo ?? false },
    database,
    clock,
    hub,
    memories,
    jobs,
    pool,
    store,
    ingest,
    queue,
    catalogue,
    runImport,
    scoring: new Scoring(database, catalogue, hub, clock),
    sheets: new SheetEntries(database, queue, hub, clock),
    relations: new Relations(database, hub, clock),
    variants: new Variants(database, hub, clock),
    photographs,
    rubricBook: new RubricBook(database, hub, clock),
    kindBook: new KindBook(database, hub),
    savedLists: new SavedLists(database, clock),
    house,
    reviews,
    handouts: new Handouts(reviews, handed, photographs, clock),
    tables: new KindTables(catalogue, standings, clock),
    site: new Site(
      catalogue,
      standings,
      reviews,
      house,
      handed,
      photographs,
      sharedPictures,
      blindPacks,
      tests,
      clock,
      packageVersion,
    ),
    corrections: new Corrections(database, ingest, queue, scale, hub, now),
    removals,
    unitAnswers: new UnitAnswers(database),
    clips: new ClipReader(database),
    protocols,
    blindPacks,
    returnedAnswers: new ReturnedAnswers(database, tests, scale, hub, clock),
    packs: new Packs(reviews, catalogue, protocols, handed, store, packageVersion),
    rigs,
    plans: new SessionPlans(database, planPages, rigs, hub, clock),
    planPages,
    heldSessions: new HeldSessions(database, planPages, rigs),
    dueTests: new DueTests(database, catalogue, rigs, clock),
    unitEvents: new UnitEvents(database, catalogue, hub),
    booth: new Booth(database, queue, runImport, new TakeCompany(database, rigs), rigs, hub, now),
    recordings,
    uploads,
    sorting: new TakeSorting(database, store, pool, queue, ingest),
    bench: new BenchDevice(pool, speechFolder),
    takePages: new TakePages(database, queue, rigs),
    pictures,
    setAside,
    integrity,
    sweeps: new SweepExports(database, store, pool),
    compare,
    compareSets: new CompareSets(database, compare, now),
    comparisonExport: new ComparisonExport(store, pool, compare, differences),
    scale,
    placings: new Placings(database, heard, fit, scale, clock),
    answersImport: new AnswersImport(database, pool, heard, scale, clock),
    tests,
    listeningClips,
    vocabulary: new VocabularyBook(database, heard, pool, clock),
    livePanels: new LivePanels(database, pool, listeningClips, scale, hub, clock),
    performers: new PerformerAnswers(database, scale, hub, clock),
    sittings: new Sittings(database, pool, tests, listeningClips, scale, hub, now),
    async close() {
      await integrity.close();
      queue.close();
      await recordings.close();
      await listeningClips.settled();
      await pool.close();
      await scalePool.close();
      await rankingPool.close();
      await database.close();
    },
  };
}
