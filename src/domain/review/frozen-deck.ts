import type { CompareTable } from '#contracts/compare';
import type { FrozenDeck, FrozenLane } from '#contracts/edition';
import type { ReviewFacts } from './review-facts';

/** What is heard beside each other in an edition, with the gains that make it equally loud. */
export function frozenDeck(table: CompareTable, { own, names }: Pick<ReviewFacts, 'own' | 'names'>): FrozenDeck {
  const roleOf = (unit: string): FrozenLane['role'] => {
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
      words: lane.words,
      date: lane.date,
      role: roleOf(lane.specimenId),
      appliedDb: lane.appliedDb,
      durationS: lane.durationS,
      isLoud: lane.isLoud,
    })),
  };
}
