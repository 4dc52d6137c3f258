import type { RunDocumentInput } from '#contracts/run-document';
import { NEW_DESK, OLD_DESK } from '#rig/audio-interface';
import { gainFor } from './demo-gain';
import { DEMO_VOICES, type DemoRunPlan, type DemoVoice } from './demo-run';
import { OTHER_GEAR } from './other-gear';
import {
  DEMO_MAKERS_WORDS,
  DEMO_RIGS,
  DEMO_UNITS,
  INTERFACE_CHANGE,
  PLOSIVE_CHANGE,
  PROTOCOL_CHANGE,
  type DemoUnit,
} from './scenario';

/** All runs of the demo, oldest first. */
export function demoRuns(units: readonly DemoUnit[] = DEMO_UNITS, others = OTHER_GEAR): DemoRunPlan[] {
  return [
    ...others,
    ...units.flatMap((unit) => [
      ...unit.dates.map((date, visit) => plan(unit, date, visit, unit.closes?.includes(date) ? 'opening' : 'unit')),
      ...(unit.closes ?? []).map((date) => plan(unit, date, 1, 'closing')),
      ...(unit.configurations ?? []).map((configuration) => inConfiguration(unit, configuration)),
    ]),
  ].sort((a, b) => (a.document.date < b.document.date ? -1 : a.document.date > b.document.date ? 1 : 0));
}

/** Steps that came with the second version of the protocol, and how they are set up. */
const FURTHER_STEPS: readonly {
  readonly step: string;
  readonly gainBy: number;
  readonly distanceM?: number;
  readonly angleDeg?: number;
  readonly levelDbSpl?: number;
}[] = [
  { step: 'calibration', gainBy: 0, levelDbSpl: 94 },
  ...[0, 45, 90, 135, 180].map((angleDeg) => ({ step: `sweep-${angleDeg}`, gainBy: 0, distanceM: 0.15, angleDeg })),
  ...[15, 30, 60, 120].map((cm) => ({ step: `distance-${cm}`, gainBy: 0, distanceM: cm / 100, angleDeg: 0 })),
  { step: 'close', gainBy: -12, distanceM: 0.03, angleDeg: 0 },
  { step: 'plosive', gainBy: -6, distanceM: 0.15, angleDeg: 0 },
];

function takesOf(
  unit: DemoUnit,
  gainDb: number,
  version: number,
  purpose: RunPurpose,
  voice: DemoVoice,
  isOfAll: boolean,
): RunDocumentInput['takes'] {
  const first = [
    { step: 'speech', file: 'speech.wav', gainDb, distanceM: 0.15, angleDeg: 0 },
    { step: 'silence', file: 'silence.wav', gainDb },
    { step: 'rear', file: 'rear.wav', gainDb, distanceM: 0.15, angleDeg: 180 },
  ];
  const further = FURTHER_STEPS.map(({ gainBy, ...take }) => ({
    ...take,
    ...(take.step === 'plosive' && version >= 3 ? { distanceM: 0.1 } : {}),
    file: `${take.step}.wav`,
    gainDb: Math.max(0, gainDb + gainBy),
  }));
  const whole = version === 1 ? first : [...first, ...further];
  // Whoever reads, the silence is the same.
  const readBy = (step: string): Readonly<Record<string, string>> => (isOfAll && step === 'silence' ? {} : { voice });
  const all = (purpose === 'closing' ? first.slice(0, 2) : whole).map((take) => ({ ...take, settings: readBy(take.step) })); // prettier-ignore
  if (isOfAll) return [...all, ...furtherReadings(all[0], voice)];
  return unit.diedAfter ? all.slice(0, all.findIndex((t) => t.step === unit.diedAfter) + 1) : all;
}

/** The passage once more by its reader, and twice by each of the others. */
function furtherReadings(first: RunDocumentInput['takes'][number], voice: DemoVoice): RunDocumentInput['takes'] {
  const others = DEMO_VOICES.filter((v) => v !== voice);
  return [
    { ...first, file: 'speech-again.wav' },
    ...others.flatMap((other) =>
      ['', '-again'].map((again) => ({ ...first, file: `speech-${other}${again}.wav`, settings: { voice: other } })),
    ),
  ];
}

/** What the data sheet says; data sheets are a little kinder than the bench, and not all of them say how they measured. */
function claimsOf({ microphone, sheet }: DemoUnit): RunDocumentInput['claims'] {
  if (!sheet) return [];
  return [
    {
      quantity: 'sensitivity',
      value: Math.round(microphone.sensitivityMvPa * 10.4) / 10,
      unit: 'mV/Pa',
      condition: '1 kHz, open circuit',
    },
    {
      quantity: 'selfNoise',
      value: Math.round(microphone.selfNoiseDbA - 1),
      unit: sheet === 'unweighted' ? 'dB SPL' : 'dB SPL(A)',
      condition: sheet === 'unweighted' ? '' : 'A-weighted',
    },
    {
      quantity: 'responseLow3',
      value: sheet === 'full' ? microphone.lowHz : 20,
      unit: 'Hz',
      condition: sheet === 'full' ? '−3 dB' : '',
    },
    {
      quantity: 'responseHigh3',
      value: sheet === 'full' ? microphone.highHz / 1000 : 20,
      unit: 'kHz',
      condition: sheet === 'full' ? '−3 dB' : '',
    },
  ];
}

/** Patterns by the share of their pressure part, first-order; the nearest counts. */
const PATTERNS: readonly (readonly [share: number, name: string])[] = [
  [0, 'figure of eight'],
  [0.28, 'hypercardioid'],
  [0.4, 'supercardioid'],
  [0.53, 'cardioid'],
  [0.65, 'wide cardioid'],
  [1, 'omni'],
];
/** A moving coil gives a few millivolts, a condenser more; a ribbon is known by its pattern. */
const LEAST_CONDENSER_MV = 4;

/** What anybody sees on the box: kind of transducer, pattern, connection. */
function sheetOf({
  model,
  microphone: { alphaHigh, sensitivityMvPa },
}: DemoUnit): NonNullable<RunDocumentInput['sheet']> {
  const [, pattern] = PATTERNS.reduce((a, b) => (Math.abs(b[0] - alphaHigh) < Math.abs(a[0] - alphaHigh) ? b : a));
  const transducer = alphaHigh < 0.1 ? 'ribbon' : sensitivityMvPa < LEAST_CONDENSER_MV ? 'moving coil' : 'condenser';
  return {
    transducer: { type: 'words', words: [transducer] },
    pattern: { type: 'words', words: [pattern] },
    connection: { type: 'words', words: ['XLR'] },
    power: { type: 'words', words: [transducer === 'condenser' ? 'phantom 48 V' : 'none'] },
    ...(model in DEMO_MAKERS_WORDS ? { makersWords: { type: 'words', words: [...DEMO_MAKERS_WORDS[model]] } } : {}),
  };
}

/** What a configuration does not say itself is said with its unit: its prices, its points, the rest of its sheet. */
function inConfiguration(
  unit: DemoUnit,
  { pattern, microphone }: NonNullable<DemoUnit['configurations']>[number],
): DemoRunPlan {
  const made = plan({ ...unit, microphone }, unit.dates[0], 1, 'unit');
  const { specimen } = made.document;
  const { label } = specimen;
  return {
    ...made,
    document: {
      ...made.document,
      specimen: {
        ...specimen,
        label: `${label}, ${pattern}`,
        variantOf: { label, configuration: pattern, varies: 'pattern' },
      },
      prices: [],
      claims: [],
      sheet: { pattern: { type: 'words', words: [pattern] } },
    },
  };
}

type RunPurpose = NonNullable<RunDocumentInput['purpose']>;

function plan(unit: DemoUnit, date: string, visit: number, purpose: RunPurpose): DemoRunPlan {
  const desk = date < INTERFACE_CHANGE ? OLD_DESK : NEW_DESK;
  const protocolVersion = date < PROTOCOL_CHANGE ? 1 : date < PLOSIVE_CHANGE ? 2 : 3;
  const voice = date < '2021-06' ? 'low' : date < '2023-06' ? 'north' : 'high';
  // Points are given at the first visit, and stand from then on.
  const given: Readonly<Record<string, DemoUnit['sound']>> =
    visit === 0 ? { sound: unit.sound, features: unit.features, build: unit.build } : {};
  return {
    document: {
      format: 'sediment-run/1',
      specimen: { maker: unit.maker, model: unit.model, label: unit.label, category: 'microphone' },
      date,
      protocol: 'desk-voice',
      protocolVersion,
      source: unit.source,
      prices: unit.prices.map(([amount, kind, day]) => ({ amount, currency: 'EUR', kind, date: day })),
      claims: claimsOf(unit) ?? [],
      sheet: sheetOf(unit),
      inputFullScaleDbu: desk.fullScaleDbu,
      rig: DEMO_RIGS[0].name,
      purpose,
      takes: takesOf(
        unit,
        gainFor(unit.microphone, desk),
        protocolVersion,
        purpose,
        voice,
        unit.allVoices?.includes(date) ?? false,
      ),
      points: Object.entries(given).flatMap(([criterion, entry]) =>
        entry ? [{ criterion, value: entry[0], reason: entry[1] }] : [],
      ),
    },
    onDesk: unit.onDesk ?? false,
    microphone: unit.microphone,
    interface: desk,
    voice,
  };
}
