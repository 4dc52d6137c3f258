import { ALGORITHM_VERSION } from '#core/measure/registry';
import { playKindOf } from '#core/rules/compare-versions';
import { comparableBetween } from '#core/rules/comparability';
import { usualRate, type CheckedClip, type CheckedTake, type OtherTake } from '#core/rules/take-checks/take-check';
import { roleOf, type Step } from '#contracts/protocol';
import {
  overruleSchema,
  plannedUnitSchema,
  takeSettingsSchema,
  type NewPlan,
  type TakeSettings,
} from '#contracts/session-plan';
import { unitKey, unitName } from '#contracts/unit-name';
import type { Database } from '../platform/db/database';
import type { Rigs } from '../rigs/rigs';
import { comparableTakes } from '../runs/queries/run';
import { checkedClip } from './checked-clip';
import { takesToCompare } from './queries/session-plan';
import type { Turn } from './slot-turn';

/** Takes that a new one is held against; more would only slow the verdict down. */
const MOST_OTHERS = 60;

/** What a take is judged by: the other takes of the day, and earlier ones of its step. */
export class TakeCompany {
  constructor(
    private readonly database: Database,
    private readonly rigs: Rigs,
  ) {}

  private async rigRateHz({ rig, day }: NewPlan): Promise<number | null> {
    return rig === null ? null : ((await this.rigs.onDay(rig, day))?.sampleRateHz ?? null);
  }

  /**
   * A take with all it is judged by.
   *
   * @param turn - whose it is
   * @param step - which it was taken at
   * @param settings - as noted
   * @param clip - what was measured of it
   * @param itself - its id where it is judged again: it is no norm for itself
   */
  async of(
    turn: Turn,
    step: Step,
    settings: TakeSettings,
    clip: CheckedClip,
    itself: string | null,
  ): Promise<CheckedTake> {
    const today = await this.takesOfToday(turn, itself);
    const reference =
      step.gain?.rule === 'as-step'
        ? today.find((t) => t.isSameUnit && t.step === (step.gain as { step: string }).step)
        : undefined;
    return {
      clip,
      step,
      role: roleOf(step),
      playKind: playKindOf(step),
      gainDb: settings.gainDb,
      distanceM: settings.distanceM ?? step.distanceM,
      voice: settings.voice,
      expectedRateHz:
        turn.protocol.sampleRateHz ?? (await this.rigRateHz(turn.plan)) ?? usualRate(today.filter((t) => t.isNorm)),
      referenceGainDb: reference?.gainDb ?? null,
      others: [...today, ...(await this.earlierTakes(turn, step))],
    };
  }

  /** Takes of this session that have not become a run yet, newest first; a retaken one was retaken for a reason. */
  private async takesOfToday({ slot, unit, protocol }: Turn, itself: string | null): Promise<OtherTake[]> {
    const rows = await takesToCompare(this.database, slot.plan_id, slot.id, ALGORITHM_VERSION);
    return rows.flatMap((row) => {
      if (row.id === itself) return [];
      const other = plannedUnitSchema.parse(row.unit);
      const settings = takeSettingsSchema.parse(row.settings);
      const step = protocol.steps.find((s) => s.id === row.step);
      return [
        {
          step: row.step,
          role: step ? roleOf(step) : 'other',
          unit: unitName(other),
          isSameUnit: unitKey(other) === unitKey(unit),
          isToday: true,
          isNorm: row.state === 'kept' && overruleSchema.array().parse(row.overruled).length === 0,
          voice: settings.voice,
          gainDb: settings.gainDb,
          distanceM: settings.distanceM ?? step?.distanceM ?? null,
          clip: checkedClip(row.summary, row.step_powers),
        },
      ];
    });
  }

  private async earlierTakes(turn: Turn, step: Step): Promise<OtherTake[]> {
    const rows = await comparableTakes(this.database, {
      protocol: turn.protocol.id,
      step: step.id,
      specimenId: turn.specimenId,
      algorithmVersion: ALGORITHM_VERSION,
      most: MOST_OTHERS,
    });
    return rows.flatMap((row) => {
      const isComparable = comparableBetween(turn.versions, row.step, row.protocol_version, turn.protocol.version);
      if (!isComparable.comparable) return [];
      const then = turn.versions.find((v) => v.version === row.protocol_version)?.steps.find((s) => s.id === row.step);
      const voice = (row.settings as { voice?: unknown }).voice;
      return [
        {
          step: row.step,
          role: then ? roleOf(then) : 'other',
          unit: row.unit,
          isSameUnit: row.specimen_id === turn.specimenId,
          isToday: false,
          isNorm: row.overruled === 0,
          voice: typeof voice === 'string' ? voice : null,
          gainDb: row.gain_db,
          distanceM: row.distance_m ?? then?.distanceM ?? null,
          clip: checkedClip(row.summary, row.step_powers),
        },
      ];
    });
  }
}
