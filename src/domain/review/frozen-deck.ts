import type { CompareTable, LaneDifference } from '#contracts/compare';
import type { FrozenDeck, FrozenLane } from '#contracts/edition';
import type { ReviewFacts } from './review-facts';

/**
 * What is heard beside each other in an edition, with the gains that make it equally loud.
 *
 * @param maps - where the times of the first lane lie in another one, by take; those that cannot be laid over it are
 *   missing
 */
export function frozenDeck(
  table: CompareTable,
  maps: ReadonlyMap<string, LaneDifference['map']>,
  { own, names }: Pick<ReviewFacts, 'own' | 'names'>,
): FrozenDeck {
  const roleOf = (unit: string, take: string): FrozenLane['role'] => {
    // Of a part both takes are of one unit: with it, and what it was fitted to by itself.
    if (take === table.pair?.withoutTake) return 'without it';
    if (unit === own.id) return 'this unit';
    return (names[unit] as { isControl: boolean } | undefined)?.isControl === true ? 'yardstick' : 'another unit';
  };
  return {
    step: table.step,
    title: table.stepTitle,
    targetLufs: table.targetLufs,
    lanes: table.lanes.map((lane) => ({
      sha256: lane.sha256,
      unit: lane.specimenId,
      name: lane.unit,
      words: [lane.words, lane.takeId === table.pair?.withoutTake ? 'without it' : '']
        .filter((w) => w !== '')
        .join(', '),
      date: lane.date,
      role: roleOf(lane.specimenId, lane.takeId),
      appliedDb: lane.appliedDb,
      durationS: lane.durationS,
      isLoud: lane.isLoud,
      map: maps.get(lane.takeId) ?? null,
    })),
  };
}
