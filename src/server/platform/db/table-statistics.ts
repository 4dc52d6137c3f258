/** As PostgreSQL's own collector would have it: fifty rows and a tenth of all. */
const LEAST_ROWS = 50;
const SHARE = 0.1;
/** Renewed when nothing was written for so long: it takes the only connection meanwhile. */
const QUIET_MS = 2000;

/**
 * Whether so much was written that the planner is better told anew.
 *
 * @param changed - rows that were written since it was told last
 * @param rows - in all tables, as they were then; null where it was never told
 */
export function isOutdated(changed: number, rows: number | null): boolean {
  return changed > LEAST_ROWS + SHARE * (rows ?? 0);
}

/** What is renewed, and how much there is. */
export interface StatisticsWork {
  /** Rows of all tables as the planner knows them; null where it had better be told anew. */
  readonly known: () => Promise<number | null>;
  /** Renews the statistics and takes dead rows away; gives the rows of all tables. */
  readonly renew: () => Promise<number>;
  readonly report: (error: unknown) => void;
  readonly quietMs?: number;
}

/**
 * Keeps what the planner knows about the tables: PGlite has no autovacuum, and without it a question over 3,400 units
 * takes hundreds of times as long.
 */
export class TableStatistics {
  private changed = 0;
  private rows: number | null = null;
  private timer: NodeJS.Timeout | null = null;
  private running: Promise<void> = Promise.resolve();
  private isClosed = false;

  constructor(private readonly work: StatisticsWork) {}

  /** After opening: what was written in many short sessions adds up. */
  async start(): Promise<void> {
    this.rows = await this.work.known();
    if (this.rows === null) await this.renew();
  }

  /** So many rows were written. */
  note(rows: number): void {
    if (rows === 0 || this.isClosed) return;
    this.changed += rows;
    if (!isOutdated(this.changed, this.rows)) return;
    if (this.timer) clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.renew(), this.work.quietMs ?? QUIET_MS).unref();
  }

  private renew(): Promise<void> {
    this.timer = null;
    this.changed = 0;
    this.running = this.running
      .then(() => (this.isClosed ? this.rows : this.work.renew()))
      .then((rows) => void (this.rows = rows))
      // The tables are as good as before, only slower to ask.
      .catch((error: unknown) => this.work.report(error));
    return this.running;
  }

  async close(): Promise<void> {
    this.isClosed = true;
    if (this.timer) clearTimeout(this.timer);
    await this.running;
  }
}
