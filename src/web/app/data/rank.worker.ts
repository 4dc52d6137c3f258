import { expose } from 'comlink';
import { priceFrontier } from '#core/rules/price-frontier';
import { rankUnits } from '#core/rules/rank';
import { whyAbove } from '#core/rules/why-above';

/** Ranking off the page's thread: the same core as the server's. */
const rankWorker = { priceFrontier, rankUnits, whyAbove };
export type RankWorker = typeof rankWorker;

expose(rankWorker);
