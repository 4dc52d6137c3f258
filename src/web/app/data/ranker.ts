import { Injectable, effect, inject } from '@angular/core';
import { wrap, type Remote } from 'comlink';
import { from, type Observable } from 'rxjs';
import type { BeatenFavourite } from '#core/rules/beaten-favourites';
import type { PricedUnit } from '#core/rules/price-frontier';
import type { RankedUnit } from '#core/rules/rank';
import type { UpgradeAdvice } from '#core/rules/upgrade-advice';
import type { WhyAbove } from '#core/rules/why-above';
import type { RankingInputs } from '#contracts/ranking';
import { KindData } from './kinds';
import type { RankWorker } from './rank.worker';

type Weights = Readonly<Record<string, number>>;

/** Ranks in a web worker. */
@Injectable({ providedIn: 'root' })
export class Ranker {
  private readonly worker: Remote<RankWorker> = wrap<RankWorker>(
    new Worker(new URL('./rank.worker', import.meta.url), { type: 'module' }),
  );

  constructor() {
    const kinds = inject(KindData);
    // Calls come to the worker in their order: what is asked after this knows them.
    effect(() => void this.worker.registerKinds(kinds.documents()));
  }

  rank(inputs: RankingInputs, weights: Weights): Observable<RankedUnit[]> {
    return from(this.worker.rankUnits(inputs.units, inputs.rubric, { weights }));
  }

  /** Units that no cheaper one equals. */
  frontier(inputs: RankingInputs, weights: Weights): Observable<PricedUnit[]> {
    return from(this.worker.priceFrontier(inputs.units, inputs.rubric, { weights }));
  }

  /** Units that stood at the top once, and that one that costs no more has beaten since. */
  beaten(inputs: RankingInputs, weights: Weights): Observable<BeatenFavourite[]> {
    return from(this.worker.beatenFavourites(inputs.units, inputs.rubric, { weights }));
  }

  /** Why one unit stands above another. */
  why(inputs: RankingInputs, weights: Weights, first: string, second: string): Observable<WhyAbove> {
    return from(this.worker.whyAbove(inputs.units, inputs.rubric, first, second, { weights }));
  }

  /** What somebody gets who goes from one unit to another. */
  upgrade(inputs: RankingInputs, weights: Weights, old: string, next: string): Observable<UpgradeAdvice> {
    return from(this.worker.upgradeAdvice(inputs.units, inputs.rubric, old, next, { weights }));
  }
}
