import { mean } from '../stats/moments';
import { powerToDb } from '../units';
import { gatedLoudness, type GatedLoudness } from './integrated-loudness';
import { blockSpread } from './loudness';
import { measured, notMeasured, type Measurement } from './measurement';

/** Speech nearer than this to the noise cannot be told from it reliably (ISO 3744 asks for 6 dB between signal and background, from memory; 3 dB bounds the error). */
const LEAST_SIGNAL_TO_NOISE_DB = 3;

/** One take of the passage. */
export interface RejectionTake {
  /** K-weighted, channel-weighted power in steps of 100 ms. */
  readonly stepPowers: Float64Array;
  /** Gain of the recording, in dB. */
  readonly gainDb: number;
}

/**
 * How much weaker speech from behind arrives than speech from the front. Both takes are brought to one gain, the
 * noise power of the silent take is taken off every block, and the gated K-weighted levels are subtracted.
 * Where the rear take is buried in the noise, the result is a lower limit ("at least").
 *
 * @param front - the passage spoken at 0°
 * @param rear - the same passage spoken at 180°
 * @param silence - the silent take
 */
export function rearRejection(front: RejectionTake, rear: RejectionTake, silence: RejectionTake): Measurement {
  const condition = 'K-weighted speech, 0° against 180°, equal gain, noise-corrected';
  const noiseAt = (gainDb: number): number =>
    silence.stepPowers.length === 0 ? 0 : mean(silence.stepPowers) * 10 ** ((gainDb - silence.gainDb) / 10);
  const frontNoise = noiseAt(front.gainDb);
  const rearNoise = noiseAt(rear.gainDb);
  const frontLevel = gatedLoudness(front.stepPowers, frontNoise);
  const rearLevel = gatedLoudness(rear.stepPowers, rearNoise);
  if (!standsOut(frontLevel, frontNoise)) {
    return notMeasured('rearRejection', condition, 'The speech at the front does not stand out of the noise.');
  }
  const settings = {
    gainFrontDb: front.gainDb,
    gainRearDb: rear.gainDb,
    leastSignalToNoiseDb: LEAST_SIGNAL_TO_NOISE_DB,
  };
  const frontPower = powerToDb(frontLevel.power) - front.gainDb;
  if (!standsOut(rearLevel, rearNoise)) {
    const limit = powerToDb(rearNoise) + LEAST_SIGNAL_TO_NOISE_DB - rear.gainDb;
    return rearNoise > 0
      ? measured('rearRejection', frontPower - limit, condition, { bound: 'at-least', settings })
      : notMeasured('rearRejection', condition, 'The rear take is silent.');
  }
  const frontSpread = blockSpread(frontLevel.blocks);
  const rearSpread = blockSpread(rearLevel.blocks);
  const uncertainty =
    frontSpread.uncertaintyLu === null || rearSpread.uncertaintyLu === null
      ? null
      : Math.hypot(frontSpread.uncertaintyLu, rearSpread.uncertaintyLu);
  return measured('rearRejection', frontPower - (powerToDb(rearLevel.power) - rear.gainDb), condition, {
    spread: rearSpread.spread,
    uncertainty,
    settings,
  });
}

const standsOut = (level: GatedLoudness, noisePower: number): boolean =>
  level.power > 0 && powerToDb(level.power / noisePower) >= LEAST_SIGNAL_TO_NOISE_DB;
