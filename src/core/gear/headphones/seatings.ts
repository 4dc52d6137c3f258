import { fractionalOctaveBands } from '../../dsp/fractional-octave';
import type { FrequencyResponse } from '../../measure/frequency-response';
import { measured, notMeasured, type Measurement } from '../../measure/measurement';
import type { QuantityId } from '../../measure/registry';
import { mean } from '../../stats/moments';
import { bandLevel, MIDDLE_HZ } from './sides';

/** Where a leak takes bass away (common practice, no source). */
const BASS_HZ = [40, 100] as const;
/** Where the place of the cup before the ear canal is heard (common practice, no source). */
const TREBLE_HZ = [4000, 10_000] as const;

/**
 * How much the response changes when the headphones are taken off and put on again.
 *
 * @param sides - the seatings of each side; a side with one says nothing
 * @returns nothing where no side was seated twice
 */
export function seatingMeasurements(sides: readonly (readonly FrequencyResponse[])[]): Measurement[] {
  const repeated = sides.filter((s) => s.length > 1);
  if (repeated.length === 0) return [];
  const treble = fractionalOctaveBands(3, ...TREBLE_HZ).map((b) => [b.lowHz, b.highHz] as const);
  return [spread('sealSpread', repeated, [BASS_HZ], '40–100 Hz'), spread('seatSpread', repeated, treble, '4–10 kHz')];
}

function spread(
  id: QuantityId,
  sides: readonly (readonly FrequencyResponse[])[],
  bands: readonly (readonly [number, number])[],
  band: string,
): Measurement {
  const count = sides.reduce((sum, s) => sum + s.length, 0);
  const condition = `${band} re 500 Hz–2 kHz, ${count} seatings of ${sides.length === 1 ? 'one side' : 'two sides'}`;
  const variances = bands.map((b) => pooledVariance(sides, b));
  if (!variances.every((v) => v !== null)) return notMeasured(id, condition, `The sweeps do not cover ${band}.`);
  const value = Math.sqrt(mean(variances));
  // A standard deviation of n − 1 degrees of freedom scatters by 1/√(2(n − 1)) of itself.
  const freedom = count - sides.length;
  return measured(id, value, condition, { uncertainty: value / Math.sqrt(2 * freedom) });
}

/** Variance of a band's level re the middle over the seatings, each side about its own mean; null where it is not covered. */
function pooledVariance(
  sides: readonly (readonly FrequencyResponse[])[],
  band: readonly [number, number],
): number | null {
  let [squares, freedom] = [0, 0];
  for (const seatings of sides) {
    const levels = seatings.map((s) => {
      const [there, middle] = [bandLevel(s, band), bandLevel(s, MIDDLE_HZ)];
      return there && middle ? there.value - middle.value : null;
    });
    if (!levels.every((l) => l !== null)) return null;
    const middle = mean(levels);
    squares += levels.reduce((sum, l) => sum + (l - middle) ** 2, 0);
    freedom += levels.length - 1;
  }
  return squares / freedom;
}
