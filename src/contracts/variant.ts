import { z } from 'zod';
import { idSchema, nameSchema } from './common';

/** What one configuration of a unit differs from another by. */
export const VARIES = ['connection', 'pattern', 'switch', 'emulation', 'firmware', 'other'] as const;
export const variesSchema = z.enum(VARIES);
export type Varies = z.infer<typeof variesSchema>;

/** A configuration in words, as it stands behind the label of the unit. */
export const configurationSchema = nameSchema.max(60, 'must not be longer than 60 characters');

/** Body of a request that notes another configuration of a unit. */
export const newVariantSchema = z.strictObject({ configuration: configurationSchema, varies: variesSchema });
export type NewVariant = z.infer<typeof newVariantSchema>;

/** Body of a request that says which configuration of a unit stands in rankings. */
export const newCountingSchema = z.strictObject({
  counts: z.union([z.literal('each'), idSchema]).describe('One of the configurations, or each by itself.'),
});
export type NewCounting = z.infer<typeof newCountingSchema>;

/** A unit of a run document that is another one in another configuration. */
export const variantOfSchema = newVariantSchema.extend({
  label: nameSchema.describe('Label of the unit that it is a configuration of: the same maker, model and kind.'),
});

/** Where a unit stands that is there in several configurations. */
export const familySchema = z.object({
  main: idSchema.describe('The unit; the others are configurations of it.'),
  configuration: z.string().describe('Empty for the unit itself.'),
  varies: variesSchema.nullable(),
  counts: z.boolean().describe('Whether it stands in rankings.'),
});
export type Family = z.infer<typeof familySchema>;
