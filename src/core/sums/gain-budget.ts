import { thermalNoiseDbuA } from '../gear/interface/thermal-noise';
import { AUDIO_BAND } from '../dsp/band-power-frames';
import { DBU_VOLTS, ONE_PASCAL_DB_SPL } from '../measure/self-noise';
import { amplitudeToDb, dbToPower, powerToDb } from '../units';

/** Resistor that an input noise is told with. */
const EIN_OHMS = 150;

/** A microphone, what stands between it and the file, and what is said into it. */
export interface GainBudgetInput {
  /** mV/Pa at 1 kHz. */
  readonly sensitivityMvPa: number;
  /** Sound pressure of the voice at the capsule, dB SPL. */
  readonly speechDbSpl: number;
  /** How far its peaks stand above that, dB. */
  readonly crestDb: number;
  /** Where the peaks are to lie, dBFS. */
  readonly targetDbfs: number;
  /** Level at the input that reads 0 dBFS at 0 dB of gain, dBu. */
  readonly fullScaleDbu: number;
  /** Most gain that the interface gives, dB; null where it is not known. */
  readonly mostGainDb: number | null;
  /** Input noise of the interface, dBu(A), with 150 Ω. */
  readonly einDbuA: number;
  /** Equivalent noise level of the microphone, dB SPL(A); null for one without electronics, whose coil makes the noise. */
  readonly selfNoiseDbA: number | null;
  /** Its source impedance, Ω. */
  readonly sourceOhms: number;
  /** A booster between the two; null: none. */
  readonly booster: { readonly gainDb: number; readonly einDbuA: number } | null;
}

/** Where a voice ends up, and in what noise. */
export interface GainBudget {
  /** Gain of the interface that brings the peaks to where they are wanted, dB. */
  readonly gainDb: number;
  /** What is left of its gain then, dB; null where the most is not known. */
  readonly marginDb: number | null;
  /** Noise of everything, as sound at the capsule, dB SPL(A). */
  readonly noiseDbA: number;
  /** Speech above that noise, dB. */
  readonly speechAboveNoiseDb: number;
  /** Noise of microphone, booster and interface apart, as sound at the capsule, dB SPL(A). */
  readonly parts: { readonly microphone: number; readonly booster: number | null; readonly interface: number };
  /** How much quieter everything is with the booster than without, dB; null without one. */
  readonly boosterGainsDb: number | null;
}

/** Noise of an amplifier alone: what its input noise has beyond that of the resistor it was told with. */
function amplifierPower(einDbuA: number): number {
  return Math.max(0, dbToPower(einDbuA) - dbToPower(thermalNoiseDbuA(EIN_OHMS, AUDIO_BAND)));
}

/**
 * Gain that a voice needs, what is left of it, and the noise of the whole chain: the powers of all noises brought to the
 * microphone's terminals, each divided by the gain before it (Friis 1944). The noise of a microphone without electronics
 * is that of its resistance (Johnson, Nyquist).
 *
 * @throws RangeError for a sensitivity or a source impedance that is not more than zero
 */
export function gainBudget(input: GainBudgetInput): GainBudget {
  const { sensitivityMvPa, sourceOhms, booster } = input;
  if (!(sensitivityMvPa > 0) || !(sourceOhms > 0)) throw new RangeError('a sensitivity and an impedance above zero are needed'); // prettier-ignore
  const onePascalDbu = amplitudeToDb(sensitivityMvPa / 1000 / DBU_VOLTS);
  const speechDbu = input.speechDbSpl - ONE_PASCAL_DB_SPL + onePascalDbu;
  // A sine at full scale has a peak 3 dB above its own level: so has what is compared with it.
  const peakDbu = speechDbu + input.crestDb - amplitudeToDb(Math.SQRT2);
  const gainDb = input.targetDbfs + input.fullScaleDbu - peakDbu - (booster?.gainDb ?? 0);
  const source = input.selfNoiseDbA === null ? dbToPower(thermalNoiseDbuA(sourceOhms, AUDIO_BAND)) : dbToPower(input.selfNoiseDbA - ONE_PASCAL_DB_SPL + onePascalDbu); // prettier-ignore
  const ofBooster = booster ? amplifierPower(booster.einDbuA) : 0;
  const ofInterface = amplifierPower(input.einDbuA);
  const behind = ofInterface / dbToPower(booster?.gainDb ?? 0);
  const total = source + ofBooster + behind;
  const asSound = (power: number): number => powerToDb(power) - onePascalDbu + ONE_PASCAL_DB_SPL;
  return {
    gainDb,
    marginDb: input.mostGainDb === null ? null : input.mostGainDb - gainDb,
    noiseDbA: asSound(total),
    speechAboveNoiseDb: input.speechDbSpl - asSound(total),
    parts: {
      microphone: asSound(source),
      booster: booster ? asSound(ofBooster) : null,
      interface: asSound(behind),
    },
    boosterGainsDb: booster ? powerToDb((source + ofInterface) / total) : null,
  };
}

/** What a margin is worth to somebody who moves, laughs, and whispers (common practice, no source). */
const COMFORTABLE_DB = 6;
/** A gain in noise that is worth a device (common practice, no source). */
const [WORTH_DB, HARDLY_DB] = [1, 0.3];

/** The answer in words: whether the interface drives the microphone, and whether the booster is of any use. */
export function gainBudgetWords({ marginDb, boosterGainsDb }: GainBudget): string[] {
  const said: string[] = [];
  if (marginDb !== null)
    said.push(
      marginDb < 0
        ? `It does not: ${(-marginDb).toFixed(1)} dB of gain are missing.`
        : marginDb < COMFORTABLE_DB
          ? `It does, with ${marginDb.toFixed(1)} dB to spare: little for a quiet speaker.`
          : `It does, with ${marginDb.toFixed(1)} dB to spare.`,
    );
  if (boosterGainsDb !== null)
    said.push(
      boosterGainsDb >= WORTH_DB
        ? `The booster is of use: everything is ${boosterGainsDb.toFixed(1)} dB quieter.`
        : boosterGainsDb >= HARDLY_DB
          ? `The booster hardly matters for the noise: ${boosterGainsDb.toFixed(1)} dB.`
          : boosterGainsDb > -HARDLY_DB
            ? 'The booster does nothing for the noise: it is the microphone’s own, or the interface is as quiet.'
            : `The booster makes it ${(-boosterGainsDb).toFixed(1)} dB noisier.`,
    );
  return said;
}
