import { z } from 'zod';
import { SHIPPED_KIND_IDS, gearKindIds, isGearKind, type GearKindId } from '#core/gear/kinds';

/** A kind of gear that is known: one that ships, or one that a person has added. */
export const categorySchema = z
  .string()
  .max(60)
  .refine(isGearKind, { error: () => `must be a kind of gear: ${gearKindIds().join(', ')}` })
  .describe(`A kind of gear: ${SHIPPED_KIND_IDS.join(', ')}, or one that was added here.`);
export type Category = GearKindId;

/** A calendar day that exists, ISO 8601. */
export const daySchema = z.iso.date({ abort: true }).refine((day) => day >= '1900' && day < '2200', {
  message: 'must be a day between 1900-01-01 and 2199-12-31',
});
/** A name for files and addresses. */
export const slugSchema = z
  .string()
  .regex(
    /^[a-z][a-z0-9-]*$/,
    'must be lower-case letters, digits and hyphens, beginning with a letter, such as desk-voice',
  );
export const sha256Schema = z
  .string()
  .regex(/^[0-9a-f]{64}$/, 'must be the fingerprint of a clip: 64 hexadecimal digits');
export const idSchema = z.string().regex(/^[1-9][0-9]{0,15}$/, 'must be the number of a record');
/** A name that people type: no control characters, no leading or trailing blanks, not endless. */
export const nameSchema = z
  .string()
  .trim()
  .min(1, 'must not be empty')
  .max(120, 'must not be longer than 120 characters')
  // eslint-disable-next-line no-control-regex -- control characters are what is to be kept out
  .regex(/^[^\u0000-\u001f\u007f]*$/, 'must not hold control characters');
export const currencySchema = z.string().regex(/^[A-Z]{3}$/, 'must be a three-letter currency code such as EUR');
