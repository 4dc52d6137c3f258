import { Injectable } from '@angular/core';
import { wrap, type Remote } from 'comlink';
import { from, type Observable } from 'rxjs';
import type { RankedUnit } from '#core/rules/rank';
import type { RankingInputs } from '#contracts/ranking';
import type { RankWorker } from './rank.worker';

/** Ranks in a web worker. */
@Injectable({ providedIn: 'root' })
export class Ranker {
  private readonly worker: Remote<RankWorker> = wrap<RankWorker>(
    new Worker(new URL('./rank.worker', import.meta.url), { type: 'module' }),
  );

  rank(inputs: RankingInputs, weights: Readonly<Record<string, number>>): Observable<RankedUnit[]> {
    return from(this.worker.rankUnits(inputs.units, inputs.rubric, { weights }));
  }
}
