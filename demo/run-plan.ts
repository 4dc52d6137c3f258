import type { RunDocumentInput } from '#contracts/run-document';
import { NEW_DESK, OLD_DESK, voltsToDbu, type InterfaceModel } from '#rig/audio-interface';
import type { MicrophoneModel } from '#rig/microphone';
import { DEMO_UNITS, INTERFACE_CHANGE, type DemoUnit } from './scenario';

/** What a worker needs to render one run of the demo, and the document that goes with it. */
export interface DemoRunPlan {
  readonly document: RunDocumentInput;
  readonly onDesk: boolean;
  readonly microphone: MicrophoneModel;
  readonly interface: InterfaceModel;
  /** Names of the files in demo/speech. */
  readonly voice: 'low' | 'high' | 'north';
}

/** Loudest pressure of the passage at 15 cm. */
const SPEECH_PEAK_PA = 2;
const TARGET_PEAK_DBFS = -11;
const HIGHEST_GAIN_DB = 62;

/** Gain that brings the peaks of the passage to the desk's target, in whole decibels as a person would set it. */
export function gainFor(microphone: MicrophoneModel, desk: InterfaceModel): number {
  const peakDbu = voltsToDbu((SPEECH_PEAK_PA * microphone.sensitivityMvPa) / 1000 / Math.SQRT2);
  return Math.max(0, Math.min(HIGHEST_GAIN_DB, Math.round(desk.fullScaleDbu + TARGET_PEAK_DBFS - peakDbu)));
}

/** All runs of the demo, oldest first. */
export function demoRuns(units: readonly DemoUnit[] = DEMO_UNITS): DemoRunPlan[] {
  return units
    .flatMap((unit) => unit.dates.map((date, visit) => plan(unit, date, visit)))
    .sort((a, b) => (a.document.date < b.document.date ? -1 : 1));
}

function plan(unit: DemoUnit, date: string, visit: number): DemoRunPlan {
  const desk = date < INTERFACE_CHANGE ? OLD_DESK : NEW_DESK;
  const gainDb = gainFor(unit.microphone, desk);
  const takes = [
    { step: 'speech', file: 'speech.wav', gainDb, distanceM: 0.15, angleDeg: 0 },
    { step: 'silence', file: 'silence.wav', gainDb },
    { step: 'rear', file: 'rear.wav', gainDb, distanceM: 0.15, angleDeg: 180 },
  ].filter((take) => !unit.missingSteps?.includes(take.step));
  // Points are given at the first visit, and stand from then on.
  const given: Readonly<Record<string, DemoUnit['sound']>> =
    visit === 0 ? { sound: unit.sound, features: unit.features, build: unit.build } : {};
  return {
    document: {
      format: 'sediment-run/1',
      specimen: { maker: unit.maker, model: unit.model, label: unit.label, category: 'microphone' },
      date,
      protocol: 'desk-voice',
      protocolVersion: 1,
      source: unit.source,
      prices: unit.prices.map(([amount, kind, day]) => ({ amount, currency: 'EUR', kind, date: day })),
      takes,
      points: Object.entries(given).flatMap(([criterion, entry]) =>
        entry ? [{ criterion, value: entry[0], reason: entry[1] }] : [],
      ),
    },
    onDesk: unit.onDesk ?? false,
    microphone: unit.microphone,
    interface: desk,
    voice: date < '2021-06' ? 'low' : date < '2023-06' ? 'north' : 'high',
  };
}
