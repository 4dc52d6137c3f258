import type { SheetValue } from '#core/gear/sheet/sheet-field';
import type { RunDocumentInput } from '#contracts/run-document';
import { NEW_DESK, OLD_DESK, type InterfaceModel } from '#rig/audio-interface';
import type { HeadphonesModel } from '#rig/headphones';
import type { MicrophoneModel } from '#rig/microphone';
import { PACE_MS } from '#rig/radio-link';
import { protocolSchema } from '#contracts/protocol';
import artificialEar from '../src/server/seed/protocol-headphones-2.json' with { type: 'json' };
import inputStage from '../src/server/seed/protocol-input-stage-3.json' with { type: 'json' };
import { gainFor } from './demo-gain';
import type { DemoRunPlan } from './demo-run';
import { DEMO_UNITS } from './scenario';

// What else the desk has tested since 2019: interfaces, boosters, shields, headphones, sets to go out with. All invented.

const number = (value: number, unit: string, condition = ''): SheetValue => ({
  type: 'number',
  value,
  unit,
  condition,
});
const words = (...list: string[]): SheetValue => ({ type: 'words', words: list });
const yes: SheetValue = { type: 'yes-no', yes: true };
const no: SheetValue = { type: 'yes-no', yes: false };

type Sheet = NonNullable<RunDocumentInput['sheet']>;
type Points = NonNullable<RunDocumentInput['points']>;
type Prices = readonly (readonly [amount: number, date: string])[];

/** The reference microphone: what is tested with another unit is tested with this one. */
const REFERENCE = DEMO_UNITS[0].microphone;

const given = (points: Readonly<Record<string, readonly [number, string]>>): Points =>
  Object.entries(points).map(([criterion, [value, reason]]) => ({ criterion, value, reason }));

const document = (
  category: RunDocumentInput['specimen']['category'],
  maker: string,
  model: string,
  date: string,
  prices: Prices,
  rest: Pick<RunDocumentInput, 'protocol' | 'protocolVersion' | 'takes'> & Partial<RunDocumentInput>,
): RunDocumentInput => ({
  format: 'sediment-run/1',
  specimen: { maker, model, label: 'A', category },
  date,
  source: 'bought',
  prices: prices.map(([amount, day]) => ({ amount, currency: 'EUR', kind: 'street', date: day })),
  ...rest,
});

const LATENCY_BUFFERS = ['32', '64', '128', '256', '512', '1024'];
/** Round trip at 48 kHz: two buffers, and what the converters and the driver take. Common practice, no source. */
const latencyTable = (overheadMs: number): NonNullable<RunDocumentInput['tables']>[number] => ({
  step: 'latency',
  cells: LATENCY_BUFFERS.map((column) => ({
    row: '48 kHz',
    column,
    value: Math.round((overheadMs + (2 * Number(column)) / 48) * 10) / 10,
    source: 'typed' as const,
    clip: null,
  })),
});

/** What the newest version of the protocol asks for beyond round trips and voltages. */
const furtherTables = (overheadMs: number): NonNullable<RunDocumentInput['tables']> => {
  const typed = (column: string, rows: Readonly<Record<string, number>>) =>
    Object.entries(rows).map(([row, value]) => ({ row, column, value, source: 'typed' as const, clip: null }));
  return [
    {
      step: 'latency-output',
      cells: LATENCY_BUFFERS.flatMap((column) =>
        typed(column, { '48 kHz': Math.round((0.4 * overheadMs + Number(column) / 48) * 10) / 10 }),
      ),
    },
    { step: 'latency-direct', cells: typed('delay', { direct: 0.1, 'direct, with its effects': 1.3 }) },
    // 3 kΩ: 20·log10(1 + 1/3) dB behind one kilohm.
    { step: 'input-impedance', cells: typed('level', { nothing: -20, '1 kΩ': -22.5 }) },
    { step: 'direct-monitor', cells: typed('level', { 'through the computer': -18.2, direct: -15.6 }) },
    {
      step: 'headphone-noise',
      cells: typed('noise', { 'volume at its lowest': -102, 'volume at its highest': -94.5 }),
    },
  ];
};

const LOOP = protocolSchema.parse(inputStage);

/** Gain by dial, as a meter shows it: some dials hold a third of it in their last part. */
const dialTable = (rangeDb: number, last15Db: number): NonNullable<RunDocumentInput['tables']>[number] => ({
  step: 'dial',
  cells: [0, 10, 20, 30, 40, 50, 60, 70, 80, 85, 90, 95, 100].map((share) => ({
    row: `${share} %`,
    column: 'level',
    value: Math.round(10 * (-70 + (share <= 85 ? ((rangeDb - last15Db) * share) / 85 : rangeDb - last15Db * ((100 - share) / 15)))) / 10, // prettier-ignore
    source: 'typed' as const,
    clip: null,
  })),
});

const headphoneTable = (of32: number, open: number): NonNullable<RunDocumentInput['tables']>[number] => ({
  step: 'headphones',
  cells: [
    ['32 Ω', of32],
    ['open', open],
  ].map(([row, value]) => ({ row: String(row), column: 'voltage', value: Number(value), source: 'typed' as const, clip: null })), // prettier-ignore
});

/** What is read of an interface beside its takes. */
interface DeskReadings {
  readonly overheadMs: number;
  readonly mostGainDb: number;
  readonly last15Db: number;
  readonly volts: readonly [of32: number, open: number];
}

/** Tones at other levels and of other frequencies: curves beside the figures. */
const MORE_TONES = [
  ...[-10, -20, -40].map((dbfs) => ({ step: 'distortion', file: `distortion${dbfs}.wav`, gainDb: 0, settings: { 'tone dBFS': dbfs } })), // prettier-ignore
  ...[100, 10_000].map((hz) => ({ step: 'one-channel', file: `one-channel-${hz}.wav`, gainDb: 0, settings: { 'tone Hz': hz } })), // prettier-ignore
];

function interfaceRun(
  model: string,
  date: string,
  desk: InterfaceModel,
  prices: Prices,
  { overheadMs, mostGainDb, last15Db, volts }: DeskReadings,
  sheet: Sheet,
  points: Points,
  { maker = 'Bitts & Cleat', more = false }: { readonly maker?: string; readonly more?: boolean } = {},
): DemoRunPlan {
  const most = desk.fullScaleDbu - 1 - (desk.gainErrorDb ?? 0);
  return {
    document: document('interface', maker, model, date, prices, {
      protocol: 'input-stage',
      protocolVersion: more ? 6 : 3,
      takes: [
        { step: 'electrical', file: 'electrical.wav', gainDb: 20, levelDbu: -20 },
        { step: 'noise-150', file: 'noise-150.wav', gainDb: mostGainDb },
        { step: 'noise-150-20', file: 'noise-150-20.wav', gainDb: 20 },
        { step: 'dynamic-range', file: 'dynamic-range.wav', gainDb: 0 },
        { step: 'distortion', file: 'distortion.wav', gainDb: 0 },
        { step: 'two-tones', file: 'two-tones.wav', gainDb: 0 },
        ...(more ? MORE_TONES : []),
        { step: 'most-input', file: 'most-input.wav', gainDb: 0, levelDbu: Math.round(most * 10) / 10 },
        { step: 'one-channel', file: 'one-channel.wav', gainDb: 0 },
        { step: 'sweep-low', file: 'sweep-low.wav', gainDb: 0, angleDeg: 0 },
        { step: 'sweep-full', file: 'sweep-full.wav', gainDb: mostGainDb },
      ],
      tables: [
        ...[latencyTable(overheadMs), dialTable(mostGainDb, last15Db), headphoneTable(...volts)],
        ...(more ? furtherTables(overheadMs) : []),
      ],
      sheet,
      points,
    }),
    onDesk: false,
    microphone: REFERENCE,
    interface: desk,
    ...(LOOP.sweep ? { sweep: LOOP.sweep } : {}),
    voice: 'high',
  };
}

/** Electronics beyond noise, of the two desks and of others: all invented. */
const GOOD = { converterDbfs: -117, bend: { square: 6e-6, cube: 4e-6 }, crosstalkDb: -96, balanceDb: 0.1 } as const;
const PLAIN = { converterDbfs: -108, bend: { square: 4e-5, cube: 3e-5 }, crosstalkDb: -82, balanceDb: 0.4 } as const;
const OLD = {
  ...OLD_DESK,
  ...PLAIN,
  converterDbfs: -103,
  crosstalkRises: true,
  atFullGain: { fromDb: 50, lowHz: 28, highHz: 26_000 },
};
const NEW = { ...NEW_DESK, ...GOOD };

const INTERFACES: readonly DemoRunPlan[] = [
  interfaceRun(
    'Fourfold',
    '2022-03-12',
    OLD,
    [[189, '2022-03-01']],
    { overheadMs: 4.6, mostGainDb: 54, last15Db: 20, volts: [0.62, 1.24] },
    {
      einA: number(-125, 'dBu', 'A-weighted, 150 Ω'),
      microphoneInputs: number(2, ''),
      instrumentInputs: number(2, ''),
      lineInputs: number(2, ''),
      headphoneOutputs: number(1, ''),
      connection: words('USB 2'),
      power: words('over the connection'),
      phantom: yes,
      loopback: no,
      directMonitoring: yes,
      rates: words('44.1 kHz', '48 kHz', '96 kHz'),
      gainRange: number(54, 'dB'),
      weight: number(0.86, 'kg'),
      inTheBox: words('cable'),
    },
    given({
      sound: [3, 'Clean, with a veil of hiss on quiet voices.'],
      build: [3, 'The dial promises more than it gives.'],
    }),
    { more: true },
  ),
  interfaceRun(
    'Eightfold',
    '2022-04-16',
    NEW,
    [
      [429, '2022-04-02'],
      [379, '2025-02-01'],
    ],
    { overheadMs: 2.4, mostGainDb: 65, last15Db: 9, volts: [1.9, 2.02] },
    {
      einA: number(-133.4, 'dBu', 'A-weighted, 150 Ω'),
      einZ: number(-129, 'dBu', 'unweighted, 150 Ω'),
      microphoneInputs: number(4, ''),
      instrumentInputs: number(2, ''),
      lineInputs: number(4, ''),
      headphoneOutputs: number(2, ''),
      connection: words('USB-C'),
      power: words('own supply'),
      phantom: yes,
      loopback: yes,
      directMonitoring: yes,
      rates: words('44.1 kHz', '48 kHz', '96 kHz', '192 kHz'),
      mostGain: number(65, 'dB'),
      mostInput: number(0.775, 'V', 'without pad'),
      distortion: number(0.0006, '%', 'at −1 dBFS'),
      dynamicRange: number(116, 'dB', 'A-weighted'),
      inputImpedance: number(2.6, 'kΩ'),
      headphoneImpedance: number(22, 'Ω'),
      weight: number(1.6, 'kg'),
    },
    given({
      sound: [4.5, 'Nothing of its own that we could hear.'],
      build: [4, 'Runs warm; the heat sink is for that.'],
    }),
  ),
  interfaceRun(
    'Duet of the Quay',
    '2024-10-12',
    { einDbu: -126.2, fullScaleDbu: 12, ...PLAIN },
    [[129, '2024-10-01']],
    { overheadMs: 3.2, mostGainDb: 56, last15Db: 13, volts: [1.1, 1.32] },
    {
      einA: number(-128, 'dBu', 'A-weighted, 150 Ω'),
      microphoneInputs: number(1, ''),
      instrumentInputs: number(1, ''),
      headphoneOutputs: number(1, ''),
      connection: words('USB-C'),
      power: words('over the connection'),
      phantom: yes,
      loopback: yes,
      directMonitoring: yes,
      rates: words('44.1 kHz', '48 kHz'),
      weight: number(11, 'oz'),
    },
    given({ sound: [4, 'As clear as the large one.'], build: [2.5, 'Plastic; the knob wobbles.'] }),
    { maker: 'Stanchion' },
  ),
  interfaceRun(
    'Twofold 2',
    '2025-06-14',
    { einDbu: -128.2, fullScaleDbu: 16, ...GOOD, converterDbfs: -115 },
    [[119, '2025-06-01']],
    { overheadMs: 2.6, mostGainDb: 60, last15Db: 10, volts: [1.5, 1.55] },
    {
      einA: number(-130.5, 'dBu', 'A-weighted, 150 Ω'),
      dynamicRange: number(118, 'dB', 'A-weighted'),
      distortion: number(0.0018, '%', 'at −1 dBFS'),
      mostInput: number(16, 'dBu', 'least gain'),
      microphoneInputs: number(2, ''),
      instrumentInputs: number(1, ''),
      lineInputs: number(2, ''),
      headphoneOutputs: number(1, ''),
      connection: words('USB-C'),
      power: words('over the connection'),
      phantom: yes,
      loopback: yes,
      directMonitoring: yes,
      rates: words('44.1 kHz', '48 kHz', '96 kHz', '192 kHz'),
      weight: number(0.5, 'kg'),
    },
    given({ sound: [4.5, 'Does what the Eightfold does, for a third.'], build: [3.5, 'Light, and sound.'] }),
  ),
  interfaceRun(
    'Pocket One',
    '2025-08-23',
    {
      einDbu: -119.5,
      fullScaleDbu: 6,
      converterDbfs: -97,
      bend: { square: 3e-4, cube: 2e-4 },
      crosstalkDb: -61,
      balanceDb: 1.2,
      atFullGain: { fromDb: 40, lowHz: 45, highHz: 14_000 },
    },
    [[49, '2025-08-01']],
    { overheadMs: 8.1, mostGainDb: 44, last15Db: 18, volts: [0.35, 0.9] },
    {
      einA: number(-123, 'dBu', 'A-weighted'),
      dynamicRange: number(104, 'dB', 'A-weighted'),
      microphoneInputs: number(1, ''),
      headphoneOutputs: number(1, ''),
      connection: words('USB-C'),
      power: words('over the connection'),
      phantom: yes,
      loopback: no,
      directMonitoring: no,
      rates: words('44.1 kHz', '48 kHz'),
      weight: number(90, 'g'),
    },
    given({ sound: [2.5, 'Hiss with anything quiet.'], build: [2, 'A toy that works.'] }),
    { maker: 'Stanchion' },
  ),
  interfaceRun(
    'Fourfold 2',
    '2023-10-14',
    { einDbu: -127, fullScaleDbu: 14, ...PLAIN, converterDbfs: -111 },
    [[179, '2023-10-01']],
    { overheadMs: 3.4, mostGainDb: 58, last15Db: 14, volts: [1.2, 1.35] },
    {
      einA: number(-129, 'dBu', 'A-weighted, 150 Ω'),
      dynamicRange: number(112, 'dB', 'A-weighted'),
      microphoneInputs: number(2, ''),
      instrumentInputs: number(2, ''),
      lineInputs: number(2, ''),
      headphoneOutputs: number(1, ''),
      connection: words('USB-C'),
      power: words('over the connection'),
      phantom: yes,
      loopback: yes,
      directMonitoring: yes,
      rates: words('44.1 kHz', '48 kHz', '96 kHz'),
      weight: number(0.8, 'kg'),
    },
    given({ sound: [3.5, 'The veil is gone.'], build: [3.5, 'The dial keeps its promise now.'] }),
  ),
  interfaceRun(
    'Rack of the Quay',
    '2024-03-09',
    { einDbu: -129.3, fullScaleDbu: 20, ...GOOD, converterDbfs: -120, bend: { square: 3e-6, cube: 2e-6 } },
    [[689, '2024-03-01']],
    { overheadMs: 3.9, mostGainDb: 70, last15Db: 10, volts: [2.4, 2.45] },
    {
      einA: number(-131, 'dBu', 'A-weighted, 150 Ω'),
      dynamicRange: number(120, 'dB', 'A-weighted'),
      microphoneInputs: number(8, ''),
      instrumentInputs: number(2, ''),
      lineInputs: number(8, ''),
      headphoneOutputs: number(2, ''),
      connection: words('USB-C'),
      power: words('own supply'),
      phantom: yes,
      loopback: yes,
      directMonitoring: yes,
      rates: words('44.1 kHz', '48 kHz', '96 kHz', '192 kHz'),
      mostGain: number(70, 'dB'),
      weight: number(3.1, 'kg'),
    },
    given({ sound: [5, 'Quieter than the room it stands in.'], build: [4.5, 'Screws where others have clips.'] }),
    { maker: 'Stanchion' },
  ),
  interfaceRun(
    'Desk Pair',
    '2025-04-12',
    { einDbu: -127.6, fullScaleDbu: 15, ...PLAIN, converterDbfs: -113, crosstalkDb: -70 },
    [[159, '2025-04-01']],
    { overheadMs: 1.9, mostGainDb: 60, last15Db: 24, volts: [0.9, 1.6] },
    {
      einA: number(-129, 'dBu', 'A-weighted'),
      microphoneInputs: number(2, ''),
      instrumentInputs: number(1, ''),
      headphoneOutputs: number(1, ''),
      connection: words('USB-C'),
      power: words('over the connection'),
      phantom: yes,
      loopback: yes,
      directMonitoring: yes,
      rates: words('44.1 kHz', '48 kHz', '96 kHz'),
      weight: number(0.6, 'kg'),
    },
    given({
      sound: [4, 'Clean; the neighbour channel can be heard in it.'],
      build: [3, 'All the gain sits in the last corner.'],
    }),
    { maker: 'Halyard' },
  ),
];

/** What stands between the voice and the file at steps that are made with it. */
type Part = Pick<DemoRunPlan, 'booster' | 'shield'> & { readonly change?: Partial<MicrophoneModel> };

/** A dynamic microphone that needs all the gain there is: what boosters are tested with. */
const QUIET_DYNAMIC: MicrophoneModel = { ...REFERENCE, sensitivityMvPa: 1.6, selfNoiseDbA: 16 };

/** Voice and noise without it, and with it: what it does is what the second lacks or adds. */
function pairRun(
  maker: string,
  model: string,
  date: string,
  prices: Prices,
  { change = {}, shield, booster }: Part,
  sheet: Sheet,
  points: Points,
): DemoRunPlan {
  const microphone = booster ? QUIET_DYNAMIC : REFERENCE;
  const bareDb = gainFor(microphone, NEW_DESK);
  const at = { distanceM: 0.15, angleDeg: 0 };
  const take = (step: string, gainDb: number, isPlaced = true) => ({ step, file: `${step}.wav`, gainDb, ...(isPlaced ? at : {}) }); // prettier-ignore
  // What the booster adds is turned back at the interface.
  const withDb = booster ? Math.max(0, bareDb - Math.round(booster.gainDb)) : bareDb;
  const takes = booster
    ? [
        take('without', bareDb),
        take('silence-without', bareDb, false),
        take('sweep-without', bareDb),
        take('with', withDb),
        take('silence-with', withDb, false),
        take('sweep-with', withDb),
      ]
    : [
        take('without', bareDb),
        take('with', bareDb),
        ...(shield ? [take('noise-without', bareDb, false), take('noise-with', bareDb, false)] : []),
        ...(change.puffDb === undefined ? [] : [take('plosive-without', bareDb), take('plosive-with', bareDb)]),
      ];
  return {
    document: document(booster ? 'booster' : 'accessory', maker, model, date, prices, {
      protocol: booster ? 'inline-booster' : 'with-without',
      protocolVersion: 1,
      takes,
      sheet,
      points,
    }),
    onDesk: false,
    microphone,
    with: { ...microphone, ...change },
    ...(shield ? { shield } : {}),
    ...(booster ? { booster } : {}),
    interface: NEW_DESK,
    voice: 'high',
  };
}

const ACCESSORIES: readonly DemoRunPlan[] = [
  pairRun(
    'Weathercloth',
    'Lee Side',
    '2023-03-04',
    [[119, '2023-03-01']],
    {
      change: { bells: [...REFERENCE.bells, { hz: 250, db: 2.5, q: 0.9 }, { hz: 7000, db: -2, q: 0.7 }] },
      shield: { lessDb: 2.5, bells: [{ hz: 4000, db: -5, q: 0.5 }] },
    },
    {
      form: words('isolation shield'),
      weight: number(1.9, 'kg'),
      folds: yes,
      body: words('metal', 'foam'),
      thread: words('3/8″', '5/8″'),
    },
    given({
      effect: [2.5, 'The window behind it stays as loud.'],
      handling: [2, 'Pulls every boom down: counterweight it.'],
      build: [4, 'Solid.'],
    }),
  ),
  pairRun(
    'Dodger',
    'Fur 2',
    '2023-07-08',
    [[29, '2023-07-01']],
    { change: { bells: [...REFERENCE.bells, { hz: 9000, db: -1.2, q: 0.6 }] } },
    {
      form: words('fur windscreen'),
      weight: number(48, 'g'),
      washable: yes,
      loss: number(1, 'dB', 'at 10 kHz'),
      fits: words('small diaphragm', 'camera-top'),
    },
    given({
      effect: [4, 'Serves a breeze; the quay at noon is too much.'],
      handling: [4, 'Stays on.'],
      build: [3, 'Sheds a little.'],
    }),
  ),
  pairRun(
    'Halyard',
    'Double Screen',
    '2024-02-17',
    [[24, '2024-02-01']],
    { change: { puffDb: (REFERENCE.puffDb ?? 18) - 14 } },
    { form: words('pop filter'), weight: number(210, 'g'), thread: words('clamp'), folds: no },
    given({
      effect: [4.5, 'No puff gets through at 10 cm.'],
      handling: [3, 'The gooseneck sinks over an hour.'],
      build: [3, 'Plain.'],
    }),
  ),
  pairRun(
    'Weathercloth',
    'Cabin',
    '2025-02-08',
    [[189, '2025-02-01']],
    { shield: { lessDb: 10.5 }, change: { bells: [...REFERENCE.bells, { hz: 180, db: 4, q: 0.8 }] } },
    { form: words('isolation shield'), weight: number(4.2, 'kg'), folds: no, body: words('foam') },
    given({
      effect: [4, 'The street is another street away.'],
      handling: [1.5, 'A box on a pole.'],
      build: [3.5, 'Glued well.'],
    }),
  ),
  pairRun(
    'Dodger',
    'Foam Ball',
    '2021-09-04',
    [[12, '2021-09-01']],
    { change: { puffDb: (REFERENCE.puffDb ?? 18) - 8, bells: [...REFERENCE.bells, { hz: 11_000, db: -3, q: 0.7 }] } },
    { form: words('foam windscreen'), weight: number(18, 'g'), washable: yes, fits: words('large diaphragm') },
    given({
      effect: [3, 'Softens a p, and the top.'],
      handling: [4.5, 'On and off.'],
      build: [2, 'Crumbles in the third summer.'],
    }),
  ),
  pairRun(
    'Halyard',
    'Half Wall',
    '2022-11-19',
    [[69, '2022-11-01']],
    { shield: { lessDb: 4.5 }, change: { bells: [...REFERENCE.bells, { hz: 220, db: 1.5, q: 0.9 }] } },
    { form: words('isolation shield'), weight: number(1.2, 'kg'), folds: yes, body: words('foam') },
    given({
      effect: [3, 'The street steps back a little.'],
      handling: [3.5, 'Stands by itself.'],
      build: [2.5, 'The hinge is tape.'],
    }),
  ),
];

const BOOSTERS: readonly DemoRunPlan[] = [
  pairRun(
    'Gunwale',
    'Lift',
    '2023-11-04',
    [[89, '2023-11-01']],
    { booster: { gainDb: 25, einDbu: -129.5 } },
    {
      form: words('barrel'),
      addedGain: number(25, 'dB'),
      gainSteps: no,
      phantomPassed: no,
      inputImpedance: number(20, 'kΩ'),
      phantomCurrent: number(3.2, 'mA'),
      weight: number(120, 'g'),
      body: words('metal'),
    },
    given({
      sound: [4, 'As without it.'],
      build: [4.5, 'A tube of steel.'],
    }),
  ),
  pairRun(
    'Thole',
    'Riser 20',
    '2024-06-15',
    [[49, '2024-06-01']],
    { booster: { gainDb: 20, einDbu: -126, lowCut: { hz: 110, order: 2 } } },
    {
      form: words('box'),
      addedGain: number(20, 'dB'),
      gainSteps: yes,
      phantomPassed: yes,
      lowCut: words('none'),
      weight: number(0.3, 'kg'),
    },
    given({
      sound: [2.5, 'Thin.'],
      build: [2.5, 'Light.'],
    }),
  ),
  pairRun(
    'Gunwale',
    'Lift Two',
    '2025-05-10',
    [[119, '2025-05-01']],
    { booster: { gainDb: 27, einDbu: -130 } },
    {
      form: words('barrel'),
      addedGain: number(27, 'dB'),
      gainSteps: yes,
      phantomPassed: yes,
      weight: number(130, 'g'),
    },
    given({ sound: [4, 'As without it, only louder.'], build: [4.5, 'The switch is the better part.'] }),
  ),
  pairRun(
    'Stanchion',
    'Nudge',
    '2025-09-06',
    [[35, '2025-09-01']],
    { booster: { gainDb: 26, einDbu: -121.5 } },
    { form: words('barrel'), addedGain: number(30, 'dB'), gainSteps: no, phantomPassed: no, weight: number(70, 'g') },
    given({ sound: [3, 'A veil.'], build: [2, 'The thread is soft.'] }),
  ),
  pairRun(
    'Thole',
    'Riser 30',
    '2025-10-11',
    [[79, '2025-10-01']],
    { booster: { gainDb: 30, einDbu: -128.5 } },
    {
      form: words('box'),
      addedGain: number(30, 'dB'),
      gainSteps: yes,
      phantomPassed: no,
      lowCut: words('none'),
      weight: number(0.3, 'kg'),
    },
    given({ sound: [4, 'As without it: they heard about the other one.'], build: [3, 'The same box.'] }),
  ),
  pairRun(
    'Halyard',
    'Plus',
    '2022-10-08',
    [[39, '2022-10-01']],
    {
      booster: { gainDb: 22, einDbu: -125 },
      change: { bells: [...QUIET_DYNAMIC.bells, { hz: 8000, db: -2.5, q: 0.7 }] },
    },
    { form: words('cable'), addedGain: number(22, 'dB'), gainSteps: no, phantomPassed: no, weight: number(60, 'g') },
    given({ sound: [3, 'A little dark.'], build: [2.5, 'A bulge in a cable.'] }),
  ),
];

const EAR = protocolSchema.parse(artificialEar);

/** Where the moving part resonates, and by how much the impedance rises there; it rises again at the top. */
interface Resonance {
  readonly hz: number;
  readonly times: number;
}

/** Impedance of both sides over frequency, as a resistor and a meter show it. */
const impedanceTable = (
  ohms: readonly [left: number, right: number],
  { hz, times }: Resonance,
): NonNullable<RunDocumentInput['tables']>[number] => ({
  step: 'impedance',
  cells: [20, 50, 100, 200, 500, 1000, 2000, 5000, 10_000, 20_000].flatMap((at) =>
    ohms.map((value, side) => ({
      row: at < 1000 ? `${at} Hz` : `${at / 1000} kHz`,
      column: side === 0 ? 'left' : 'right',
      value:
        Math.round(10 * value * (1 + (times - 1) * Math.exp(-(Math.log2(at / hz) ** 2)) + 0.012 * (at / 1000))) / 10,
      source: 'typed' as const,
      clip: null,
    })),
  ),
});

const earLevelTable = (dbSplAt1V: number): NonNullable<RunDocumentInput['tables']>[number] => ({
  step: 'ear-level',
  cells: ['left', 'right'].map((column, side) => ({ row: '1 kHz', column, value: dbSplAt1V + 0.4 * side, source: 'typed' as const, clip: null })), // prettier-ignore
});

/** What is read of headphones beside their takes. */
interface EarReadings {
  readonly ohms: readonly [left: number, right: number];
  readonly resonance: Resonance;
  readonly dbSplAt1V: number;
  readonly headphones: HeadphonesModel;
  /** What they keep out. */
  readonly shield: NonNullable<DemoRunPlan['shield']>;
}

/** Taken off and put on again. */
const SEATINGS = [1, 2, 3];

function headphonesRun(
  model: string,
  date: string,
  prices: Prices,
  { ohms, resonance, dbSplAt1V, headphones, shield }: EarReadings,
  sheet: Sheet,
  points: Points,
): DemoRunPlan {
  const gainDb = gainFor(REFERENCE, NEW_DESK);
  return {
    document: document('headphones', 'Foghorn', model, date, prices, {
      protocol: 'headphones',
      protocolVersion: 2,
      takes: [
        ...['sweep-left', 'sweep-right'].flatMap((step) => SEATINGS.map((n) => ({ step, file: `${step}-${n}.wav`, gainDb: 20 }))), // prettier-ignore
        { step: 'noise-without', file: 'noise-without.wav', gainDb },
        { step: 'noise-with', file: 'noise-with.wav', gainDb },
      ],
      tables: [impedanceTable(ohms, resonance), earLevelTable(dbSplAt1V)],
      sheet,
      points,
    }),
    onDesk: false,
    microphone: REFERENCE,
    interface: NEW_DESK,
    headphones,
    shield,
    ...(EAR.sweep ? { sweep: EAR.sweep } : {}),
    voice: 'high',
  };
}

/** A closed cup with a good seal, an open one, an ear piece that sits as it likes, a pad on the ear. */
const CLOSED: EarReadings = {
  ohms: [62, 63],
  resonance: { hz: 70, times: 1.9 },
  dbSplAt1V: 109.5,
  headphones: { levelDbfs: -10, lowHz: 14, highHz: 19_000, bells: [{ hz: 90, db: 4, q: 0.8 }, { hz: 3200, db: 6, q: 1.2 }, { hz: 9000, db: -4, q: 2 }], right: { levelDb: 0.3, bells: [{ hz: 5600, db: 1.8, q: 2 }] }, sealDb: 1.1, seatDb: 1.2, bend: { square: 0.004, cube: 0.003 } }, // prettier-ignore
  shield: { lessDb: 8, bells: [{ hz: 3000, db: -16, q: 0.4 }] },
};
const OPEN: EarReadings = {
  ohms: [151, 149],
  resonance: { hz: 90, times: 2.4 },
  dbSplAt1V: 104,
  headphones: { levelDbfs: -11, lowHz: 38, highHz: 20_500, bells: [{ hz: 3500, db: 7, q: 1.3 }], right: { levelDb: -0.2 }, sealDb: 0.3, seatDb: 0.9, bend: { square: 0.002, cube: 0.001 } }, // prettier-ignore
  shield: { lessDb: 0.4, bells: [{ hz: 6000, db: -3, q: 0.6 }] },
};
const EAR_PIECE: EarReadings = {
  ohms: [17, 16],
  resonance: { hz: 2500, times: 1.2 },
  dbSplAt1V: 121,
  headphones: { levelDbfs: -9, lowHz: 25, highHz: 16_000, bells: [{ hz: 4500, db: 9, q: 2 }, { hz: 8200, db: 5, q: 3 }], right: { levelDb: 1.6, bells: [{ hz: 2000, db: -3, q: 1.5 }] }, sealDb: 5, seatDb: 2.5, bend: { square: 0.02, cube: 0.01 } }, // prettier-ignore
  shield: { lessDb: 11, bells: [{ hz: 3500, db: -12, q: 0.5 }] },
};
const ON_EAR: EarReadings = {
  ohms: [38, 38],
  resonance: { hz: 110, times: 1.5 },
  dbSplAt1V: 115.3,
  headphones: { levelDbfs: -10, lowHz: 30, highHz: 18_500, bells: [{ hz: 200, db: -1.5, q: 0.7 }, { hz: 3000, db: 5, q: 1.2 }], right: { bells: [{ hz: 7000, db: 1.2, q: 2 }] }, sealDb: 2.2, seatDb: 1.6, bend: { square: 0.006, cube: 0.004 } }, // prettier-ignore
  shield: { lessDb: 2.5, bells: [{ hz: 4000, db: -8, q: 0.5 }] },
};

const HEADPHONES: readonly DemoRunPlan[] = [
  headphonesRun('Closed 3', '2023-09-16', [[149, '2023-09-01']], CLOSED, { construction: words('closed'), wear: words('around the ear'), transducer: words('moving coil'), connection: words('6.3 mm', '3.5 mm'), impedance: number(64, 'Ω'), sensitivityPerPower: number(98, 'dB SPL/mW', 'at 1 kHz'), detachableCable: yes, spareParts: yes, weight: number(290, 'g') }, given({ sound: [3.5, 'A hump in the bass that one gets used to.'], comfort: [4, 'An afternoon.'], isolation: [4.5, 'The microphone hears nothing of them.'], build: [4, 'Hinges of metal.'] })), // prettier-ignore
  headphonesRun('Open 1', '2023-09-16', [[219, '2023-09-01']], OPEN, { construction: words('open'), wear: words('around the ear'), transducer: words('moving coil'), connection: words('6.3 mm'), impedance: number(150, 'Ω'), sensitivityPerVoltage: number(108, 'dB SPL/V'), detachableCable: no, spareParts: yes, weight: number(250, 'g') }, given({ sound: [4.5, 'Tells reverb from room.'], comfort: [4.5, 'Forgotten after ten minutes.'], isolation: [0.5, 'None, in either direction.'], build: [3, 'The cable is for life.'] })), // prettier-ignore
  headphonesRun('Pilot', '2025-03-22', [[39, '2025-03-01']], EAR_PIECE, { construction: words('closed'), wear: words('in the ear'), connection: words('3.5 mm'), impedance: number(16, 'Ω'), weight: number(12, 'g') }, given({ sound: [2.5, 'Bright.'], comfort: [2, 'An hour.'], isolation: [4, 'Good.'], build: [2, 'Light.'] })), // prettier-ignore
  headphonesRun('Semi 2', '2024-11-09', [[129, '2024-11-01']], ON_EAR, { construction: words('half open'), wear: words('on the ear'), transducer: words('moving coil'), connection: words('6.3 mm', '3.5 mm'), impedance: number(38, 'Ω'), sensitivityPerPower: number(101, 'dB SPL/mW'), detachableCable: yes, spareParts: yes, weight: number(210, 'g') }, given({ sound: [4, 'Even, with a little less below.'], comfort: [3, 'Presses after a while.'], isolation: [2, 'The microphone hears a whisper of them.'], build: [3.5, 'The band is steel.'] })), // prettier-ignore
];

const OMNI_CLIP: MicrophoneModel = { alphaLow: 0.97, alphaHigh: 0.9, lowHz: 60, highHz: 16_000, sensitivityMvPa: 12, selfNoiseDbA: 27, bells: [{ hz: 5500, db: 3, q: 1 }], puffDb: 8, windDb: 8 }; // prettier-ignore
const SHORT_TUBE: MicrophoneModel = { alphaLow: 0.45, alphaHigh: 0.3, lowHz: 90, highHz: 15_000, sensitivityMvPa: 18, selfNoiseDbA: 23, bells: [{ hz: 3500, db: 2, q: 1.1 }], puffDb: 16, windDb: 20 }; // prettier-ignore

/** The walk of the demo, as somebody listens to it and notes it. */
const WALK: NonNullable<RunDocumentInput['tables']>[number] = {
  step: 'range-marks',
  cells: [10, 20, 30, 40, 50].map((m) => ({
    row: `${m} m`,
    column: 'passed at',
    value: m / PACE_MS,
    source: 'typed' as const,
    clip: null,
  })),
};

function fieldRun(
  maker: string,
  model: string,
  date: string,
  prices: Prices,
  microphone: MicrophoneModel,
  field: Pick<DemoRunPlan, 'rubDb' | 'link' | 'gate'>,
  sheet: Sheet,
  points: Points,
): DemoRunPlan {
  const gainDb = gainFor(microphone, NEW_DESK);
  return {
    document: document('field-microphone', maker, model, date, prices, {
      protocol: 'field-voice',
      protocolVersion: 3,
      ...(field.link ? { tables: [WALK] } : {}),
      takes: [
        { step: 'speech', file: 'speech.wav', gainDb, distanceM: 0.3, angleDeg: 0 },
        { step: 'silence', file: 'silence.wav', gainDb },
        ...(['wind-light', 'wind-light-shield', 'wind', 'wind-shield'] as const).map((step) => ({
          step,
          file: `${step}.wav`,
          gainDb,
          distanceM: 0.3,
          angleDeg: 0,
          windSpeedMs: step.startsWith('wind-light') ? 4 : 7,
        })),
        { step: 'clothing', file: 'clothing.wav', gainDb },
        ...(field.link ? [{ step: 'range', file: 'range.wav', gainDb, distanceM: 0.3, angleDeg: 0 }] : []),
      ],
      sheet,
      points,
    }),
    onDesk: false,
    microphone,
    ...field,
    interface: NEW_DESK,
    voice: 'north',
  };
}

const FIELD: readonly DemoRunPlan[] = [
  // Its link closes between sentences: quiet pauses that say nothing of its noise.
  fieldRun('Mooring', 'Hush Link', '2025-06-14', [[179, '2025-06-01']], { ...OMNI_CLIP, selfNoiseDbA: 30 }, { rubDb: -10, link: { firstM: 18, lostM: 31 }, gate: { thresholdDbfs: -48, closedDb: 24, holdS: 0.45 } }, { transducer: words('electret'), pattern: words('omni'), form: words('wireless set'), link: words('2.4 GHz'), connection: words('USB'), transmitters: number(1, ''), batteryLife: number(5, 'h'), range: number(150, 'm', 'in sight'), backupRecording: no, floatRecording: no, safetyTrack: no, chargingCase: yes, furWindscreen: yes, weight: number(24, 'g', 'transmitter') }, given({ sound: [2.5, 'Words come out of nothing.'], wind: [3, 'A breeze.'], build: [3, 'Light.'] })), // prettier-ignore
  fieldRun('Mooring', 'Clip Set', '2024-08-24', [[239, '2024-08-01']], OMNI_CLIP, { rubDb: -8, link: { firstM: 34, lostM: 90 } }, { transducer: words('electret'), pattern: words('omni'), form: words('wireless set'), link: words('2.4 GHz'), connection: words('USB', '3.5 mm'), transmitters: number(2, ''), batteryLife: number(7, 'h'), range: number(250, 'm', 'in sight'), backupRecording: yes, floatRecording: yes, safetyTrack: yes, chargingCase: yes, furWindscreen: yes, weight: number(31, 'g', 'transmitter') }, given({ sound: [3.5, 'Honest, a little bright.'], wind: [3.5, 'A breeze with its fur on.'], build: [3.5, 'The clip bites.'] })), // prettier-ignore
  fieldRun('Mooring', 'Short Tube', '2024-08-24', [[119, '2024-08-01']], SHORT_TUBE, { rubDb: -20 }, { transducer: words('condenser'), pattern: words('shotgun'), form: words('camera-top'), link: words('cable'), connection: words('3.5 mm'), batteryLife: number(40, 'h', 'one cell'), backupRecording: no, floatRecording: no, safetyTrack: yes, chargingCase: no, furWindscreen: yes, weight: number(85, 'g') }, given({ sound: [3, 'Boxy indoors.'], wind: [3, 'A light breeze.'], build: [3, 'Rattles.'] })), // prettier-ignore
  fieldRun('Mooring', 'Clip Set 2', '2025-09-20', [[199, '2025-09-01']], { ...OMNI_CLIP, selfNoiseDbA: 24, bells: [{ hz: 6000, db: 2, q: 0.9 }] }, { rubDb: -13, link: { firstM: 47, lostM: 120 } }, { transducer: words('electret'), pattern: words('omni'), form: words('wireless set'), link: words('2.4 GHz'), connection: words('USB', '3.5 mm'), transmitters: number(2, ''), batteryLife: number(9, 'h'), range: number(300, 'm', 'in sight'), backupRecording: yes, floatRecording: yes, safetyTrack: yes, chargingCase: yes, furWindscreen: yes, weight: number(28, 'g', 'transmitter') }, given({ sound: [4, 'The first one, with less of a rustle.'], wind: [3.5, 'A breeze with its fur on.'], build: [4, 'The clip holds, and does not bite.'] })), // prettier-ignore
  fieldRun('Halyard', 'Tin Ear', '2023-05-13', [[49, '2023-05-01']], { ...OMNI_CLIP, selfNoiseDbA: 36, lowHz: 120, highHz: 11_000, bells: [{ hz: 3000, db: 6, q: 1.2 }], windDb: 14 }, { rubDb: -5, link: { firstM: 9, lostM: 16 } }, { transducer: words('electret'), pattern: words('omni'), form: words('wireless set'), link: words('2.4 GHz'), connection: words('USB'), transmitters: number(1, ''), batteryLife: number(4, 'h'), range: number(20, 'm', 'in sight'), backupRecording: no, floatRecording: no, safetyTrack: no, chargingCase: no, furWindscreen: no, weight: number(18, 'g', 'transmitter') }, given({ sound: [1.5, 'A tin, as it says.'], wind: [1, 'None.'], build: [2, 'Light.'] })), // prettier-ignore
  fieldRun('Dodger', 'Long Tube', '2022-07-09', [[329, '2022-07-01']], { ...SHORT_TUBE, alphaLow: 0.4, alphaHigh: 0.2, sensitivityMvPa: 30, selfNoiseDbA: 15, bells: [{ hz: 4000, db: 1.5, q: 1 }], windDb: 17 }, { rubDb: -24 }, { transducer: words('condenser'), pattern: words('shotgun'), form: words('hand-held'), link: words('cable'), connection: words('XLR'), backupRecording: no, floatRecording: no, safetyTrack: no, chargingCase: no, furWindscreen: yes, weight: number(160, 'g') }, given({ sound: [4.5, 'As if one stood there.'], wind: [4, 'The quay at noon, with its fur.'], build: [4.5, 'Made for rain.'] })), // prettier-ignore
  fieldRun('Weathercloth', 'Lapel Wire', '2021-06-19', [[79, '2021-06-01']], { ...OMNI_CLIP, sensitivityMvPa: 9, selfNoiseDbA: 29, windDb: 9 }, { rubDb: -9 }, { transducer: words('electret'), pattern: words('omni'), form: words('clip-on'), link: words('cable'), connection: words('3.5 mm', 'XLR'), backupRecording: no, floatRecording: no, safetyTrack: no, chargingCase: no, furWindscreen: yes, weight: number(14, 'g') }, given({ sound: [3, 'Plain, and no radio to fail.'], wind: [2.5, 'A breath.'], build: [3, 'Spares for the clip are sold.'] })), // prettier-ignore
  fieldRun('Stanchion', 'Quay Pair', '2024-05-25', [[429, '2024-05-01']], { ...OMNI_CLIP, selfNoiseDbA: 22, highHz: 18_000, bells: [{ hz: 7000, db: 1.5, q: 0.8 }], windDb: 7 }, { rubDb: -15, link: { firstM: 90, lostM: 150 } }, { transducer: words('electret'), pattern: words('omni'), form: words('wireless set'), link: words('UHF'), connection: words('XLR', '3.5 mm'), transmitters: number(2, ''), batteryLife: number(6, 'h'), range: number(100, 'm', 'in sight'), backupRecording: yes, floatRecording: yes, safetyTrack: yes, chargingCase: no, furWindscreen: yes, weight: number(92, 'g', 'transmitter') }, given({ sound: [4.5, 'The voice, and nothing else.'], wind: [4, 'A windy quay with its fur on.'], build: [4.5, 'Metal.'] })), // prettier-ignore
];

/** Runs of everything that is no microphone for the desk, in any order. */
export const OTHER_GEAR: readonly DemoRunPlan[] = [...INTERFACES, ...ACCESSORIES, ...BOOSTERS, ...HEADPHONES, ...FIELD];
