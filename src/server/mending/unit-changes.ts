import { ALGORITHM_VERSION } from '#core/measure/registry';
import { correctionText } from '#core/rules/correction-text';
import { nameSchema } from '#contracts/common';
import { unitName } from '#contracts/unit-name';
import { nameAfterUnit } from '#domain/catalogue/variant-rules';
import { mergedAnswers, runsCountedTwice } from '#domain/mending/merge-plan';
import { ensureModel, findSpecimen, listSpecimens } from '../catalogue/queries/specimen';
import { findVariant, variantsOf } from '../catalogue/queries/variant';
import { Failure } from '../platform/failure';
import type { Queryable } from '../platform/db/database';
import { refused, type ChangeOf, type PreparedChange } from './prepared-change';
import { namesOf, renameUnit } from './queries/correction';
import {
  answersNaming,
  comparedRuns,
  everyNameOf,
  findMerge,
  mergedInto,
  moveBack,
  moveEverything,
  openTestsWithBoth,
  rigsControlledBy,
} from './queries/unit-merge';

/** Another name for a unit. */
export async function renameUnitChange(db: Queryable, change: ChangeOf<'unit-name'>): Promise<PreparedChange> {
  const { unit, maker, model, label } = change;
  const before = await namesOf(db, unit);
  const [base] = await listSpecimens(db, ALGORITHM_VERSION, [unit]);
  if (!before) throw new Failure('not-found', `There is no unit with the number ${unit}.`);
  const text = correctionText('Name', [{ name: '', before: unitName(before), after: unitName(change) }]);
  if (text === null) throw refused('That is its name already.');
  // Its configurations go by its name.
  const names = { maker, model, label };
  const following = (await variantsOf(db, unit)).flatMap((v) => {
    const name = nameAfterUnit(v, before, names);
    return name ? [{ id: v.id, name }] : [];
  });
  const renamed = [{ id: unit, name: names }, ...following];
  for (const { id, name } of renamed) {
    const taken = await findSpecimen(db, { ...name, category: base.category });
    if (taken !== null && taken !== id)
      throw refused(`There is a unit ${unitName(name)} already. If they are one and the same, merge this one into it.`);
    if (!nameSchema.safeParse(name.label).success)
      throw refused(`Its configuration would be called “${name.label}”, which is too long for a label.`);
  }
  return {
    before: { kind: 'unit-name', unit, ...before },
    text: text.replace(':  ', ': ') + followers(following.length),
    specimens: renamed.map((r) => r.id),
    runs: [],
    apply: async (tx) => {
      const made = await ensureModel(tx, { maker, model, category: base.category });
      for (const { id, name } of renamed) await renameUnit(tx, id, made, name);
    },
  };
}

const followers = (count: number): string =>
  count === 0 ? '' : count === 1 ? '; its configuration as well' : `; its ${count} configurations as well`;

/** Two units are one that was entered twice, or are two after all. */
export async function mergeUnits(
  db: Queryable,
  change: ChangeOf<'unit-merged'>,
  now: () => Date,
): Promise<PreparedChange> {
  const { unit, into, isMerged } = change;
  const [from, to] = [await everyNameOf(db, unit), await everyNameOf(db, into)];
  if (!from || !to) throw new Failure('not-found', `There is no unit with the number ${from ? into : unit}.`);
  const [isPartOf, otherIsPartOf] = [await mergedInto(db, unit), await mergedInto(db, into)];
  const variants = [...(await variantsOf(db, unit)), ...(await variantsOf(db, into))];
  const base = {
    before: { ...change, isMerged: !isMerged },
    specimens: [unit, into, ...variants.map((v) => v.id)],
    movesAnswers: true,
  };
  if (otherIsPartOf !== null)
    throw refused(`${unitName(to)} is part of another unit itself; take that apart first, or choose the other unit.`);
  if (!isMerged) {
    const merge = isPartOf === into ? await findMerge(db, unit) : null;
    if (!merge) throw refused(`${unitName(from)} is no part of ${unitName(to)}.`);
    return {
      ...base,
      text: `${unitName(from)} taken apart from ${unitName(to)}`,
      runs: merge.moved.leftOut,
      apply: (tx) => moveBack(tx, unit, merge, now()),
    };
  }
  if (unit === into) throw refused('That is the same unit.');
  if (isPartOf !== null) throw refused(`${unitName(from)} is part of another unit already.`);
  if (from.category !== to.category) throw refused(`${unitName(to)} is gear of another kind.`);
  const target = await findVariant(db, into);
  if (target?.variant_of !== null && variants.some((v) => v.variant_of === unit))
    throw refused(
      `${unitName(from)} has configurations, and ${unitName(to)} is one itself; let that stand by itself first.`,
    );
  const [open] = await openTestsWithBoth(db, [unit, into]);
  if (open !== undefined)
    throw refused(`The listening test “${open}” offers both, and can still be answered; close it first.`);
  const [rig] = await rigsControlledBy(db, [unit]);
  if (rig !== undefined)
    throw refused(`${unitName(from)} is the control unit of the rig “${rig}”; merge the other one into it instead.`);
  const answers = mergedAnswers(await answersNaming(db, unit), unit, into);
  const twice = runsCountedTwice(await comparedRuns(db, [unit, into]), unit);
  return {
    ...base,
    text: [`${unitName(from)} merged into ${unitName(to)}`, ...mergeNotes(answers.dropped.length, twice.length)].join(
      '; ',
    ),
    runs: [],
    apply: (tx) => moveEverything(tx, unit, into, answers, twice, now()),
  };
}

const mergeNotes = (dropped: number, twice: number): string[] => [
  ...(twice > 0
    ? [`${twice === 1 ? 'a run' : `${twice} runs`} that both had ${twice === 1 ? 'counts' : 'count'} once`]
    : []),
  ...(dropped > 0
    ? [
        `${dropped === 1 ? 'an answer' : `${dropped} answers`} that held one against the other ${dropped === 1 ? 'counts' : 'count'} no longer`,
      ]
    : []),
];
