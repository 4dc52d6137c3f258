/** What of a take may differ without the unit or its setting being another: who speaks, where, and how it is mounted. */
export const CONDITION_FACTORS = ['voice', 'place', 'mount'] as const;
export type ConditionFactor = (typeof CONDITION_FACTORS)[number];

/** Values of the factors; null where nothing was noted. */
export type TakeCondition = Readonly<Record<ConditionFactor, string | null>>;

/** Settings that are noted with a take. */
export type TakeSettingsNoted = Readonly<Record<string, string | number | boolean>>;

/** Settings as far as conditions are read from them. */
export type ConditionSettings = Readonly<Partial<Record<string, string | number | boolean | null>>>;

const textOf = (value: string | number | boolean | null | undefined): string | null => {
  const text = value === undefined || value === null ? '' : String(value).trim();
  return text === '' ? null : text;
};

/** Conditions of a take, as they were noted. */
export const conditionOf = (settings: ConditionSettings): TakeCondition => ({
  voice: textOf(settings['voice']),
  place: textOf(settings['place']),
  mount: textOf(settings['mount']),
});

/** What was done to a take after it was recorded, in words; null for one that is as it came. */
export const processingOf = (settings: ConditionSettings): string | null => textOf(settings['processing']);

/** "voice Ada, place hall"; an empty text where nothing was noted. */
export const conditionWords = (condition: TakeCondition): string =>
  CONDITION_FACTORS.flatMap((f) => (condition[f] === null ? [] : [`${f} ${condition[f]}`])).join(', ');

/** Conditions that are written alike are one: neither capitals nor spaces make another voice. */
const sameText = (a: string | null, b: string | null): boolean =>
  (a === null) === (b === null) && (a ?? '').toLowerCase() === (b ?? '').toLowerCase();

/** Whether two conditions are the same one. */
export const isSameCondition = (a: TakeCondition, b: TakeCondition): boolean =>
  CONDITION_FACTORS.every((f) => sameText(a[f], b[f]));

/** Whether two takes were made in conditions that are both named and differ: neither stands for the other. */
export function areOtherConditions(a: ConditionSettings, b: ConditionSettings): boolean {
  const [one, other] = [conditionOf(a), conditionOf(b)];
  return CONDITION_FACTORS.some((f) => one[f] !== null && other[f] !== null && !sameText(one[f], other[f]));
}

/** Whether a take says nothing that contradicts a condition. */
const fits = (take: TakeCondition, condition: TakeCondition): boolean =>
  CONDITION_FACTORS.every((f) => take[f] === null || sameText(take[f], condition[f]));

const named = (condition: TakeCondition): number => CONDITION_FACTORS.filter((f) => condition[f] !== null).length;

/** A take, as far as its conditions need it. */
export interface ConditionedTake {
  readonly step: string;
  readonly settings: TakeSettingsNoted;
}

/**
 * The conditions that the takes of a run were made in, in the order in which they were recorded. What says less than
 * another counts with it (a silent take names no voice), unless one step was taken in both.
 *
 * @param takes - of one run, in order
 */
export function conditionsOf(takes: readonly ConditionedTake[]): TakeCondition[] {
  const distinct: TakeCondition[] = [];
  for (const { settings } of takes) {
    const condition = conditionOf(settings);
    if (!distinct.some((d) => isSameCondition(d, condition))) distinct.push(condition);
  }
  const stepsIn = (condition: TakeCondition): Set<string> =>
    new Set(takes.filter((t) => isSameCondition(conditionOf(t.settings), condition)).map((t) => t.step));
  return distinct.filter((condition) => {
    const closer = distinct.filter((d) => named(d) > named(condition) && fits(condition, d));
    const own = stepsIn(condition);
    return closer.length === 0 || closer.some((d) => [...stepsIn(d)].some((step) => own.has(step)));
  });
}

/**
 * The takes that count in a condition: those made in it, and of steps that were not, those that say less.
 *
 * @param takes - of one run, in order
 * @param condition - one of {@link conditionsOf}
 */
export function takesIn<T extends ConditionedTake>(takes: readonly T[], condition: TakeCondition): T[] {
  const fitting = takes.filter((t) => fits(conditionOf(t.settings), condition));
  const closest = new Map<string, number>();
  for (const { step, settings } of fitting)
    closest.set(step, Math.max(closest.get(step) ?? 0, named(conditionOf(settings))));
  return fitting.filter(({ step, settings }) => named(conditionOf(settings)) === closest.get(step));
}
