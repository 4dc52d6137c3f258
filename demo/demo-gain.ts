import { voltsToDbu, type InterfaceModel } from '#rig/audio-interface';
import type { MicrophoneModel } from '#rig/microphone';

/** Loudest pressure of the passage at 15 cm. */
const SPEECH_PEAK_PA = 2;
const TARGET_PEAK_DBFS = -11;
const HIGHEST_GAIN_DB = 62;

/** Gain that brings the peaks of the passage to the desk's target, in whole decibels as a person would set it. */
export function gainFor(microphone: MicrophoneModel, desk: InterfaceModel): number {
  const peakDbu = voltsToDbu((SPEECH_PEAK_PA * microphone.sensitivityMvPa) / 1000 / Math.SQRT2);
  return Math.max(0, Math.min(HIGHEST_GAIN_DB, Math.round(desk.fullScaleDbu + TARGET_PEAK_DBFS - peakDbu)));
}
