import type { CheckedClip } from '#core/rules/take-checks/take-check';
import { clipSummarySchema } from '#contracts/clip-summary';
import { doublesFrom } from '../platform/db/numbers-from-bytes';

/** A measured clip as the checks see it. */
export function checkedClip(summary: unknown, stepPowers: Uint8Array | null): CheckedClip {
  const { format, level, channels, loudness, noise, hum, interference, dropOuts, thirdOctave } =
    clipSummarySchema.parse(summary);
  return {
    durationS: format.durationS,
    sampleRateHz: format.sampleRateHz,
    peakDbfs: level.peakDbfs,
    truePeakDbtp: loudness.truePeakDbtp,
    clippedRuns: level.clippedRuns,
    channelsDbfs: channels.map((c) => c.rmsDbfs),
    integratedLufs: loudness.integratedLufs,
    speech: noise.speech,
    silence: noise.silence,
    events: noise.events,
    pauseDbfsA: noise.silenceRmsDbfs.a,
    pauseFindings: noise.findings,
    hum: hum && { mainsHz: hum.mainsHz, totalDbfs: hum.totalDbfs },
    interference: interference && {
      totalDbfs: interference.totalDbfs,
      isRadio: interference.radioBursts !== null,
      isBus: interference.busWhine !== null,
    },
    dropOuts: dropOuts.count,
    thirdOctave,
    stepPowers: doublesFrom(stepPowers ?? new Uint8Array()),
  };
}
