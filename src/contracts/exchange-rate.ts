import { z } from 'zod';
import { BASE_CURRENCY } from '#core/rules/exchange-rates';
import { RATE_SHEET } from '#core/text/read-rates';
import { currencySchema, daySchema } from './common';

/** What one euro came to on a day. */
export const exchangeRateSchema = z.strictObject({
  date: daySchema,
  currency: currencySchema.refine((c) => c !== BASE_CURRENCY, {
    message: `must be another currency than ${BASE_CURRENCY}`,
  }),
  rate: z.number().min(RATE_SHEET.least).max(RATE_SHEET.most).describe('Units of the currency for one euro.'),
});

/** Body of a request that notes rates: all of them or none. */
export const newRatesSchema = z.strictObject({ rates: z.array(exchangeRateSchema).min(1).max(20_000) });
