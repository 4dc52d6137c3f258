import { createHash } from 'node:crypto';
import type { LaneDifference } from '#contracts/compare';
import type { Edition, FrozenDeck } from '#contracts/edition';
import type { EditionChange, Review, ReviewDocument, HeldReview, ReviewOfUnit, ReviewRow } from '#contracts/review';
import type { SpecimenRow } from '#contracts/specimen';
import { unitName } from '#contracts/unit-name';
import { freeze, frozenFacts } from '#domain/review/freeze';
import { frozenDeck } from '#domain/review/frozen-deck';
import { isWhatWasPublished, publishProblems } from '#domain/review/publish-problems';
import { changedLines, offered, propose } from '#domain/review/propose';
import { proposeDeck } from '#domain/review/propose-deck';
import type { ReviewFacts } from '#domain/review/review-facts';
import type { Character } from '#contracts/character';
import { characterWords } from '#domain/character/character-words';
import { useStandings } from '#domain/character/use-standing';
import { emptyReview } from '#domain/review/shipped-house';
import { sinceEdition } from '#domain/review/since-edition';
import type { Catalogue } from '../catalogue/catalogue';
import type { Compare } from '../compare/compare';
import type { Clock } from '../platform/clock';
import type { Database } from '../platform/db/database';
import type { EventHub } from '../platform/event-hub';
import { Failure } from '../platform/failure';
import type { HouseRules } from './house-rules';
import type { KindStandings } from './kind-standings';
import {
  addEdition,
  addReview,
  discardReview,
  editionsOf,
  findEdition,
  findReview,
  listHeadlines,
  listReviews,
  newestEditions,
  saveReview,
  type KeptEdition,
  type KeptReview,
} from './queries/review';

/** What a person writes about units, and the editions that were published of it. */
export class Reviews {
  constructor(
    private readonly database: Database,
    private readonly catalogue: Catalogue,
    private readonly standings: KindStandings,
    private readonly house: HouseRules,
    private readonly compare: Compare,
    private readonly hub: EventHub,
    private readonly clock: Clock,
    private readonly software: string,
  ) {}

  /**
   * Reviews, the latest first.
   *
   * @param unit - of this one alone; null for all
   */
  async list(unit: string | null = null): Promise<ReviewRow[]> {
    const newest = new Map((await newestEditions(this.database)).map((e) => [e.reviewId, e]));
    const rows: ReviewRow[] = [];
    for (const { id, specimenId, openedOn, headline } of await listHeadlines(this.database, unit)) {
      const kept = newest.get(id);
      const named = unitOf(await this.catalogue.specimen(specimenId));
      rows.push({ id, unit: named, openedOn, headline, editions: kept?.number ?? 0, publishedOn: kept?.publishedOn ?? null }); // prettier-ignore
    }
    return rows;
  }

  /** Reviews of one unit, with how each stands to the facts of today. */
  async listOf(unit: string): Promise<ReviewOfUnit[]> {
    const rows = await this.list(unit);
    const held = new Map((await this.held(rows.map((r) => r.id))).map((h) => [h.id, h]));
    return rows.flatMap((row) => {
      const now = held.get(row.id);
      return now ? [{ ...row, ...now }] : [];
    });
  }

  /** Reviews held against the facts of today; those that are there no more are left out. */
  async held(ids: readonly string[]): Promise<HeldReview[]> {
    const house = await this.house.current();
    const held: HeldReview[] = [];
    for (const id of new Set(ids)) {
      const review = await findReview(this.database, id);
      if (!review) continue;
      const facts = await this.standings.factsOf(review.specimenId);
      const newest = (await editionsOf(this.database, id)).at(0);
      held.push({
        id,
        marks: changedLines(review.document, propose(facts, house)).length,
        since: newest ? this.since(newest.edition, facts) : [],
      });
    }
    return held;
  }

  /**
   * Words for a unit by where they come from, and how it stands for the uses of this desk.
   *
   * @throws Failure `not-found`
   */
  async character(unit: string): Promise<Character> {
    const facts = await this.standings.factsOf(unit);
    const house = await this.house.current();
    return { ...characterWords(facts, house), uses: useStandings(facts, house) };
  }

  /** @throws Failure `not-found` */
  async get(id: string): Promise<Review> {
    const review = await this.mustFind(id);
    const house = await this.house.current();
    const facts = await this.standings.factsOf(review.specimenId);
    const editions = await editionsOf(this.database, id);
    const proposals = propose(facts, house);
    return {
      id,
      unit: unitOf(facts.sheet.row),
      openedOn: review.openedOn,
      revision: review.revision,
      document: review.document,
      proposals: offered(proposals, house),
      marks: changedLines(review.document, proposals),
      editions: editions.map(({ id: editionId, sha256, edition }, i) => ({
        id: editionId,
        number: edition.number,
        publishedOn: edition.publishedOn,
        headline: edition.text.headline,
        sha256,
        changes: edition.changes,
        since: i === 0 ? this.since(edition, facts) : [],
      })),
      isChanged: !isWhatWasPublished(review.document, editions.at(0)?.edition),
    };
  }

  /**
   * Begins a review of a unit, with what can be heard beside it proposed. The text is the person's: nothing is written.
   *
   * @throws Failure `not-found`
   */
  async open(unit: string): Promise<{ id: string }> {
    const facts = await this.standings.factsOf(unit);
    const { category } = facts.sheet.row;
    const deck = await proposeDeck(facts, (step) => this.compare.candidates(category, step));
    const document: ReviewDocument = { ...emptyReview(), decks: deck ? [deck] : [] };
    const id = await this.database.transaction((tx) => addReview(tx, facts.sheet.row.id, this.clock.today(), document));
    this.hub.specimenChanged(facts.sheet.row.id);
    return { id };
  }

  /**
   * @param revision - the one that was gone on from
   * @throws Failure `not-found`; `invalid-request` where it was saved meanwhile
   */
  async save(id: string, revision: number, document: ReviewDocument): Promise<Review> {
    await this.mustFind(id);
    if ((await this.database.transaction((tx) => saveReview(tx, id, revision, document))) === null)
      throw new Failure('invalid-request', 'This review was saved meanwhile, in another window.', [
        {
          file: null,
          field: 'revision',
          message: 'load it anew; what was written here is kept, and offered again then',
        },
      ]);
    return this.get(id);
  }

  /** @throws Failure `not-found`; `invalid-request` where something of it is published: that stays */
  async discard(id: string): Promise<void> {
    const { specimenId } = await this.mustFind(id);
    if (!(await this.database.transaction((tx) => discardReview(tx, id))))
      throw new Failure('invalid-request', 'An edition of it is published; what is published stays.');
    this.hub.specimenChanged(specimenId);
  }

  /**
   * Freezes what is written as the next edition.
   *
   * @param revision - the one that was seen when this was asked for
   * @throws Failure `not-found`; `invalid-request` with everything that stands against it
   */
  async publish(id: string, revision: number): Promise<Review> {
    const review = await this.mustFind(id);
    if (review.revision !== revision)
      throw new Failure('invalid-request', 'This review was saved meanwhile: read it again before it is published.');
    const house = await this.house.current();
    const facts = await this.standings.factsOf(review.specimenId);
    const before = (await editionsOf(this.database, id)).at(0)?.edition ?? null;
    const decks = await this.frozenDecks(review.document, facts);
    const { document: written } = review;
    const edition = freeze({ review: id, document: written, house, facts, decks, day: this.clock.today(), software: this.software, before }); // prettier-ignore
    const problems = publishProblems(edition, before);
    if (problems.length > 0)
      throw new Failure(
        'invalid-request',
        'This cannot be published yet.',
        problems.map(({ field, message }) => ({ file: null, field, message })),
      );
    const document = JSON.stringify(edition);
    const sha256 = createHash('sha256').update(document).digest('hex');
    await this.database.transaction(async (tx) => {
      const newest = (await newestEditions(tx)).find((e) => e.reviewId === id)?.number ?? 0;
      if (newest !== edition.number - 1)
        throw new Failure('invalid-request', `Edition ${newest} was published meanwhile: look at it first.`);
      await addEdition(tx, id, edition, document, sha256);
    });
    this.hub.specimenChanged(review.specimenId);
    return this.get(id);
  }

  /** @throws Failure `not-found` */
  async edition(id: string): Promise<KeptEdition> {
    const found = await findEdition(this.database, id);
    if (!found) throw new Failure('not-found', 'There is no such edition.');
    return found;
  }

  /** The unit that a review is of now: it may be part of another one. @throws Failure `not-found` */
  async unitOf(reviewId: string): Promise<string> {
    return (await this.mustFind(reviewId)).specimenId;
  }

  /** Every review that is published, with all of its editions, the latest published first. */
  async published(): Promise<{ readonly unit: string; readonly editions: readonly KeptEdition[] }[]> {
    const all: { unit: string; editions: KeptEdition[] }[] = [];
    for (const review of await listReviews(this.database)) {
      const editions = await editionsOf(this.database, review.id);
      if (editions.length > 0) all.push({ unit: review.specimenId, editions });
    }
    const dayOf = ({ editions }: (typeof all)[number]): string => editions[0].edition.publishedOn;
    return all.sort((a, b) => (dayOf(a) < dayOf(b) ? 1 : dayOf(a) > dayOf(b) ? -1 : 0));
  }

  /** What has changed since an edition; of its unit, which may be part of another one now. */
  async sinceOf({ edition, reviewId }: KeptEdition): Promise<EditionChange[]> {
    const review = await this.mustFind(reviewId);
    return this.since(edition, await this.standings.factsOf(review.specimenId));
  }

  private since(edition: Edition, facts: ReviewFacts): EditionChange[] {
    return sinceEdition(edition, frozenFacts(facts, this.software), facts.sheet.events);
  }

  private async frozenDecks(document: ReviewDocument, facts: ReviewFacts): Promise<FrozenDeck[]> {
    const decks: FrozenDeck[] = [];
    for (const [i, { takes }] of document.decks.entries()) {
      const table = await this.compare
        .table({ takes: [...takes], zero: takes[0], match: 'loudness', loop: null })
        .catch((error: unknown) => {
          if (!(error instanceof Failure)) throw error;
          throw new Failure('invalid-request', 'A clip that a reader should hear is not there.', [
            {
              file: null,
              field: `decks.${i}`,
              message: `${error.message} Leave it out under “Heard beside each other”.`,
            },
          ]);
        });
      decks.push(frozenDeck(table, await this.maps(takes), facts));
    }
    return decks;
  }

  /** How each take lies to the first; one that has nothing in common with it runs with it. */
  private async maps([zero, ...others]: readonly string[]): Promise<ReadonlyMap<string, LaneDifference['map']>> {
    const maps = new Map<string, LaneDifference['map']>();
    for (const take of others) {
      const difference = await this.compare.difference(zero, take).catch((error: unknown) => {
        if (error instanceof Failure && error.code === 'invalid-request') return null;
        throw error;
      });
      if (difference) maps.set(take, difference.map);
    }
    return maps;
  }

  private async mustFind(id: string): Promise<KeptReview> {
    const review = await findReview(this.database, id);
    if (!review) throw new Failure('not-found', 'There is no such review.');
    return review;
  }
}

const unitOf = (row: SpecimenRow): Review['unit'] => ({
  id: row.id,
  name: unitName(row),
  category: row.category,
});
