import type { SpecimenSheet } from '#contracts/specimen';

/** Why a unit has no place, in words that are true of it. */
export function whyNotRanked({
  row,
  runs,
}: Pick<SpecimenSheet, 'row'> & { readonly runs: readonly Pick<SpecimenSheet['runs'][number], 'purpose'>[] }): string {
  if (!row.hasRules) return 'there are no rules for its kind';
  if (row.lastTested === null) return 'not tested yet';
  if (runs.every((r) => r.purpose !== 'unit')) return 'its takes are the rig’s';
  if (row.family?.counts === false) return 'another configuration of it counts';
  if (row.failedAnalyses > 0) return 'an analysis failed';
  if (row.waitingAnalyses > 0) return 'being measured';
  return 'nothing that its rules count has been tested';
}
