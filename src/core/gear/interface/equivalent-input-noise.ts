import { gainWords, takeGain } from '../../rules/take-gain';
import { AUDIO_BAND } from '../../dsp/band-power-frames';
import { bandText } from '../../measure/band-text';
import { measured, notMeasured, type Measurement } from '../../measure/measurement';
import type { QuantityId } from '../../measure/registry';
import { noiseSettings, pausesText, type NoiseLevel } from '../../measure/silence-noise';
import type { AnalysedTake } from '../run/analysed-take';
import { gainDifferenceU, gained, isRefused } from '../run/gained-take';
import { thermalNoiseDbu, thermalNoiseDbuA } from './thermal-noise';

/** Resistance that the input is terminated with: that of a microphone. IEC 60268-3 leaves it open; common practice. */
const TERMINATION_OHMS = 150;
/** Standard uncertainty of a level that a voltmeter showed (common practice, no source). */
export const METER_UNCERTAINTY_DB = 0.2;
/** A tone's third octave holds all of an A-weighted level at 1 kHz; where more is there, it is no tone alone. */
const LARGEST_REST_DB = 0.5;
/** A figure that lies below the thermal noise by more than so many of its uncertainties is a fault of the measurement. */
const COVERAGE = 2;
const FIGURES = ['einZ', 'einA', 'noiseFigure'] as const satisfies readonly QuantityId[];

/**
 * Equivalent input noise of an input that a resistor of 150 Ω stands at: what the noise of the take would be at the
 * input, by a tone of known level through the same input; and how far it lies above what the resistor alone makes at
 * 20 °C.
 *
 * The tone says which level at the input reads 0 dBFS; where the two takes have other gains, the difference of what was
 * noted is taken. A figure below the thermal noise is refused: then the tone's level, a gain or the resistor is not what
 * was noted.
 *
 * @param terminated - take of the terminated input
 * @param tone - take of 1 kHz, with its level at the input in `levelDbu`
 * @returns `einZ` (dBu), `einA` (dBu(A)) and `noiseFigure` (dB re thermal noise, unweighted)
 */
export function equivalentInputNoise(
  terminated: AnalysedTake | undefined,
  tone: AnalysedTake | undefined,
): Measurement[] {
  const reason = whyNot(terminated, tone);
  if (reason !== null || !terminated?.noise || !tone || tone.levelDbu === null)
    return FIGURES.map((id) => notMeasured(id, `${TERMINATION_OHMS} Ω`, reason ?? ''));
  const both = gained(terminated, tone);
  if (isRefused(both)) return FIGURES.map((id) => notMeasured(id, `${TERMINATION_OHMS} Ω`, both.refused));
  const { noise } = terminated;
  const [{ gainDb }, { gainDb: toneGainDb }] = both;
  const ofGains = gainDifferenceU(both[0], both[1]);
  const inputOfFullScale = tone.levelDbu - tone.loudest.oneKilohertzDbfs + toneGainDb - gainDb;
  const ofReference = Math.hypot(METER_UNCERTAINTY_DB, ofGains);
  const band = { lowHz: AUDIO_BAND.lowHz, highHz: noise.highHz };
  const where = `${TERMINATION_OHMS} Ω, ${gainWords(takeGain(terminated.gainDb, terminated.dial))}, ${bandText(noise.highHz)}, ${pausesText(noise)}`;
  const settings = { fullScaleDbu: inputOfFullScale, gainDb, toneGainDb, ...noiseSettings(noise) };
  const uncertaintyOf = (level: NoiseLevel): number | null =>
    level.uncertaintyDb === null ? null : Math.hypot(level.uncertaintyDb, ofReference);
  const floors = { z: thermalNoiseDbu(TERMINATION_OHMS, band), a: thermalNoiseDbuA(TERMINATION_OHMS, band) };
  const of = (id: QuantityId, level: NoiseLevel, floor: number, condition: string, re = 0): Measurement => {
    const dbu = level.levelDbfs + inputOfFullScale;
    const uncertainty = uncertaintyOf(level);
    if (dbu + COVERAGE * (uncertainty ?? ofReference) < floor)
      return notMeasured(
        id,
        condition,
        `It would be ${dbu.toFixed(1)} dBu, below the ${floor.toFixed(1)} dBu that ${TERMINATION_OHMS} Ω make by themselves: the level of the tone, a gain or the resistor is not what was noted.`.replaceAll('-', '−'), // prettier-ignore
      );
    return measured(id, dbu - re, condition, { bound: noise.bound, spread: level.spread, uncertainty, settings });
  };
  return [
    of('einZ', noise.z, floors.z, `unweighted, ${where}`),
    of('einA', noise.a, floors.a, `A-weighted, ${where}`),
    of('noiseFigure', noise.z, floors.z, `unweighted, re ${TERMINATION_OHMS} Ω at 20 °C, ${where}`, floors.z),
  ];
}

function whyNot(terminated: AnalysedTake | undefined, tone: AnalysedTake | undefined): string | null {
  const missing = [!terminated && 'the terminated input', !tone && 'the tone of known level'].filter(Boolean);
  if (!terminated || !tone) return `The run lacks: ${missing.join(', ')}.`;
  if (tone.levelDbu === null) return 'The level of the tone at the input is not noted.';
  const { oneKilohertzDbfs, aDbfs } = tone.loudest;
  if (!Number.isFinite(oneKilohertzDbfs) || aDbfs - oneKilohertzDbfs > LARGEST_REST_DB)
    return 'The take of the tone holds no tone of 1 kHz alone.';
  if (!terminated.noise) return 'The take of the terminated input holds no steady noise of at least 0.5 s.';
  return terminated.noise.refused;
}
