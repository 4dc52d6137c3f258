import type { ItemRole, NewTest } from '#contracts/listening';

/** A take, as far as setting up a test needs it. */
export interface TestTake {
  readonly take_id: string;
  readonly specimen_id: string;
  readonly step: string;
  readonly category: string;
  /** What was done to it after it was recorded, in words; null for one that is as it came. */
  readonly processing: string | null;
}

/** Takes of a test: those that are compared, and the yardstick where it is none of them. */
export const takesOfTest = ({ takes, yardstick }: Pick<NewTest, 'takes' | 'yardstick'>): string[] =>
  yardstick && !takes.includes(yardstick) ? [...takes, yardstick] : [...takes];

/**
 * Why these takes make no test; null where they do.
 *
 * @param test - what is asked of whom
 * @param takes - that are heard
 * @param arePair - they are one unit's takes with and without something: whether that is heard can be asked by ABX
 */
export function takesRefusal(
  test: Pick<NewTest, 'design' | 'category'>,
  takes: readonly TestTake[],
  arePair: boolean,
): string | null {
  const [first, ...others] = takes;
  // Whether a voice, a place or an equaliser is heard at all can be asked of one unit; nothing is ranked by it.
  const isOneTwice =
    others.length === 1 && others[0].specimen_id === first.specimen_id && others[0].step === first.step;
  if (test.design === 'abx' && (arePair || isOneTwice))
    return takes.every((t) => t.category === test.category) ? null : notOf(test);
  const worked = takes.find((t) => t.processing !== null);
  if (worked && test.design !== 'abx')
    return `One of the clips was processed (${worked.processing}): what is ranked is heard as it came. Whether it is heard at all is an ABX test of its unit.`;
  if (test.design !== 'performer' && new Set(takes.map((t) => t.step)).size > 1)
    return arePair
      ? 'With and without something, one asks whether it is heard at all: that is an ABX test.'
      : 'The clips belong to different steps; a test compares one step, or two steps that are each other’s pair.';
  if (takes.some((t) => t.category !== test.category)) return notOf(test);
  if (new Set(takes.map((t) => t.specimen_id)).size < takes.length)
    return 'Two of the clips are of one and the same unit.';
  return null;
}

const notOf = ({ category }: Pick<NewTest, 'category'>): string =>
  `Not all of these units are of the category ${category}.`;

/**
 * What the items of a test are: its takes, and the copies that keep listeners honest.
 *
 * @param test - what is asked
 * @param takes - as they were chosen; ratings are against the first
 * @param ordered - the same in the order in which items are numbered
 */
export function itemsOfSetup<T extends TestTake>(
  test: Pick<NewTest, 'design' | 'yardstick' | 'controls'>,
  takes: readonly T[],
  ordered: readonly T[],
): { readonly take: T; readonly role: ItemRole }[] {
  const isRated = test.design === 'ratings';
  const items = ordered.map((take) => {
    const isReference = isRated && take === takes[0];
    return { take, role: isReference ? 'reference' : take.take_id === test.yardstick ? 'yardstick' : 'unit' } as const;
  });
  if (isRated) return [...items, { take: takes[0], role: 'anchor-low' }, { take: takes[0], role: 'anchor-mid' }];
  const isCompared = test.design === 'pairs' || test.design === 'heats' || test.design === 'pack';
  return test.controls && isCompared ? [...items, { take: ordered[0], role: 'known-worse' }] : items;
}
