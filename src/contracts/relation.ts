import { z } from 'zod';
import { currencySchema, daySchema, idSchema, nameSchema } from './common';

/** How a unit stands to another one, as it is noted with the first. */
export const RELATION_KINDS = ['needs', 'replaces', 'cheaper-sibling', 'same-capsule'] as const;
export type RelationKind = (typeof RELATION_KINDS)[number];

const amountSchema = z.strictObject({
  amount: z.number().positive().max(1e9).multipleOf(0.01),
  currency: currencySchema,
  date: daySchema,
});

/** Body of a request that notes how a unit stands to another one: one of the catalogue, or one that is typed. */
export const newRelationSchema = z
  .strictObject({
    kind: z.enum(RELATION_KINDS),
    other: idSchema.nullable().default(null),
    name: z.union([nameSchema, z.literal('')]).default(''),
    uses: z.array(nameSchema).max(20).default([]).describe('Uses that a part is needed for; none: every use.'),
    price: amountSchema.nullable().default(null).describe('Of a part that is typed.'),
  })
  .refine((r) => (r.other === null) !== (r.name === ''), {
    path: ['name'],
    message: 'name either a unit of the catalogue or something that is typed',
  })
  .refine((r) => r.price === null || (r.kind === 'needs' && r.other === null), {
    path: ['price'],
    message: 'only a part that is typed has a price of its own; a unit of the catalogue has its prices there',
  })
  .refine((r) => r.uses.length === 0 || r.kind === 'needs', {
    path: ['uses'],
    message: 'only a part is needed for a use',
  });
export type NewRelation = z.infer<typeof newRelationSchema>;

/** A relation as a unit's page shows it. */
export const relationSchema = z.object({
  id: z.string(),
  kind: z.enum(RELATION_KINDS),
  /** Whether it is noted with this unit; else with the other one, and reads the other way round. */
  isOwn: z.boolean(),
  other: z.object({ id: z.string(), name: z.string() }).nullable(),
  name: z.string(),
  uses: z.array(z.string()),
  price: amountSchema.nullable(),
  since: daySchema,
});
export type Relation = z.infer<typeof relationSchema>;
