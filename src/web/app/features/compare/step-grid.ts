import type { CompareCandidate } from '#contracts/compare';

/** A unit over the voices and places in which a step was taken; null where it was not taken in one. */
export interface GridUnit {
  readonly specimenId: string;
  readonly unit: string;
  readonly takes: readonly (string | null)[];
}

/** Takes of one step by unit and condition. */
export interface StepGrid {
  readonly columns: readonly string[];
  readonly units: readonly GridUnit[];
}

/**
 * The takes of a step as a grid, the newest of each unit and condition; what was worked on is no condition.
 *
 * @param candidates - of one step, newest first
 * @returns null where all were taken in one condition
 */
export function stepGrid(candidates: readonly CompareCandidate[]): StepGrid | null {
  const raw = candidates.filter((c) => !c.isProcessed);
  const columns = [...new Set(raw.map((c) => c.words))].sort();
  if (columns.length < 2) return null;
  const byUnit = new Map<string, CompareCandidate[]>();
  for (const c of raw) byUnit.set(c.specimenId, [...(byUnit.get(c.specimenId) ?? []), c]);
  const units = [...byUnit].map(([specimenId, own]) => ({
    specimenId,
    unit: own[0].unit,
    takes: columns.map((words) => own.find((c) => c.words === words)?.takeId ?? null),
  }));
  // A unit in several conditions tells most.
  const filled = (u: GridUnit): number => u.takes.filter((t) => t !== null).length;
  return { columns, units: units.sort((a, b) => filled(b) - filled(a) || a.unit.localeCompare(b.unit)) };
}
