import { expose } from 'comlink';
import { registerKinds } from '#core/gear/kinds';
import { beatenFavourites } from '#core/rules/beaten-favourites';
import { priceFrontier } from '#core/rules/price-frontier';
import { rankUnits } from '#core/rules/rank';
import { upgradeAdvice } from '#core/rules/upgrade-advice';
import { whyAbove } from '#core/rules/why-above';

/** Ranking off the page's thread: the same core as the server's. */
const rankWorker = { beatenFavourites, priceFrontier, rankUnits, registerKinds, upgradeAdvice, whyAbove };
export type RankWorker = typeof rankWorker;

expose(rankWorker);
