import { expose } from 'comlink';
import { rankUnits } from '#core/rules/rank';

/** Ranking off the page's thread: the same core as the server's. */
const rankWorker = { rankUnits };
export type RankWorker = typeof rankWorker;

expose(rankWorker);
