import type { ExchangeRate } from '#core/rules/exchange-rates';
import { isGivenByHand } from '#core/rules/rubric';
import type { PointsInput, PriceInput } from '#contracts/run-document';
import type { NewUnit } from '#contracts/specimen';
import type { Database } from '../platform/db/database';
import { listRates, noteRates } from './queries/exchange-rate';
import { givePoints } from './queries/points';
import { notePrice } from './queries/price';
import { currentRubric } from './queries/rubric';
import { ensureSpecimen, noteCustody, specimenExists } from './queries/specimen';
import { restOfFamily } from './queries/variant';
import { Failure } from '../platform/failure';
import type { Catalogue } from './catalogue';
import type { EventHub } from '../platform/event-hub';
import type { Clock } from '../platform/clock';

/** What people decide about a unit: points, prices, whether it is on the desk. Everything is appended. */
export class Scoring {
  constructor(
    private readonly database: Database,
    private readonly catalogue: Catalogue,
    private readonly hub: EventHub,
    private readonly clock: Clock,
  ) {}

  /** @throws Failure `not-found`, `invalid-request` where the criterion is not one for points by hand */
  async givePoints(specimenId: string, points: PointsInput): Promise<void> {
    const { category } = await this.catalogue.specimen(specimenId);
    const rubric = await currentRubric(this.database, category);
    const criterion = rubric?.rubric.criteria.find((c) => c.id === points.criterion);
    if (!rubric || !criterion || !isGivenByHand(criterion)) {
      const message = `"${points.criterion}" is not a criterion that points are given for by hand`;
      throw new Failure('invalid-request', `${message}.`, [{ file: null, field: 'criterion', message }]);
    }
    await givePoints(
      this.database,
      { specimenId, rubricVersionId: rubric.versionId, runId: null, day: this.clock.today() },
      points,
    );
    this.hub.specimenChanged(specimenId, 'points');
  }

  /** Notes a unit before anything is recorded of it: a control unit is chosen before it is tested. */
  async addUnit(unit: NewUnit): Promise<{ id: string }> {
    const id = await this.database.transaction((tx) => ensureSpecimen(tx, unit));
    await this.tellFamily(id);
    return { id };
  }

  /** What one euro came to on days; prices in other currencies count by it from then on. */
  async noteRates(rates: readonly ExchangeRate[]): Promise<void> {
    await this.database.transaction((tx) => noteRates(tx, rates));
    this.hub.rulesChanged();
  }

  rates(): Promise<ExchangeRate[]> {
    return listRates(this.database);
  }

  /** @throws Failure `not-found`, `correction-refused` where the same price was removed */
  async notePrice(specimenId: string, price: PriceInput): Promise<void> {
    await this.mustExist(specimenId);
    if (!(await notePrice(this.database, specimenId, price)))
      throw new Failure('correction-refused', 'This very price was removed; take it back under “Corrections”.');
    this.hub.specimenChanged(specimenId, 'prices');
  }

  /** @throws Failure `not-found` */
  async setCustody(specimenId: string, onDesk: boolean): Promise<void> {
    await this.mustExist(specimenId);
    await noteCustody(this.database, specimenId, onDesk, this.clock.today());
    await this.tellFamily(specimenId);
  }

  private async tellFamily(specimenId: string): Promise<void> {
    for (const id of [specimenId, ...(await restOfFamily(this.database, specimenId))]) this.hub.specimenChanged(id);
  }

  private async mustExist(specimenId: string): Promise<void> {
    if (!(await specimenExists(this.database, specimenId))) {
      throw new Failure('not-found', `There is no unit with the number ${specimenId}.`);
    }
  }
}
