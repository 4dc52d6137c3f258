import type { BenchTake } from '#contracts/bench';
import { roleOf, type Step } from '#contracts/protocol';
import type { Slot, TakeSettings } from '#contracts/session-plan';
import { playKindOf } from '#core/rules/compare-versions';
import type { BenchChoice } from './bench-choice';

/** Played sounds that are measured where nothing echoes, unless it is the room that is measured. */
const PLAYED_DRY = ['sweep', 'tone'];
/** Gain of the bench where none is noted. */
const USUAL_GAIN_DB = 40;

/**
 * What the simulated bench plays for the next take of a step.
 *
 * @param session - id of the plan; with unit, step and attempt it makes a seed, so that no two takes are alike
 */
export function benchOrder(
  session: string,
  slot: Pick<Slot, 'ordinal' | 'takes'>,
  step: Step,
  choice: BenchChoice,
  { gainDb, distanceM, angleDeg }: Pick<TakeSettings, 'gainDb' | 'distanceM' | 'angleDeg'>,
): BenchTake {
  const playKind = playKindOf(step);
  const attempt = slot.takes.filter((t) => t.step === step.id).length + 1;
  return {
    talker: choice.talker,
    room: PLAYED_DRY.includes(playKind) && roleOf(step) !== 'room' ? 'crate' : choice.room,
    microphone: choice.microphone,
    interface: choice.interface,
    faults: [...choice.faults],
    playKind,
    gainDb: gainDb ?? USUAL_GAIN_DB,
    distanceM: distanceM ?? step.distanceM,
    angleDeg: angleDeg ?? step.angleDeg,
    seed: [session, slot.ordinal, step.id, attempt].join('/'),
  };
}
