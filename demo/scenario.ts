import type { RunDocumentInput } from '#contracts/run-document';
import type { MicrophoneModel } from '#rig/microphone';

/**
 * The demo: Tidewrack Audio Desk, a two-person review desk in a converted net loft by a harbour, testing microphones
 * for people who narrate wildlife walks, ferry announcements and radio plays, since 2019. Every maker, model and
 * price is invented. What the rig is told here is what the measurements have to find.
 */
export interface DemoUnit {
  readonly maker: string;
  readonly model: string;
  readonly label: string;
  /** Days on which it was recorded; the reference microphone comes back. */
  readonly dates: readonly string[];
  readonly source: RunDocumentInput['source'];
  readonly prices: readonly [amount: number, kind: 'list' | 'street' | 'sale' | 'paid', date: string][];
  readonly microphone: MicrophoneModel;
  /** Points by hand; null where nobody has got round to it. */
  readonly sound: readonly [number, string] | null;
  readonly features: readonly [number, string] | null;
  readonly build: readonly [number, string] | null;
  /** The last step that could be recorded before the unit died. */
  readonly diedAfter?: string;
  /** How well its data sheet says what it measured; none for units whose sheet nobody kept. */
  readonly sheet?: 'full' | 'unweighted';
  readonly onDesk?: boolean;
  /** Days on which every voice of the desk read to it, twice each: whether a verdict hangs on who speaks. */
  readonly allVoices?: readonly string[];
  /** The same unit with its switch in another place: recorded on the first day, after it. */
  readonly configurations?: readonly { readonly pattern: string; readonly microphone: MicrophoneModel }[];
  /** Days on which it also closed the session, with speech and silence only. */
  readonly closes?: readonly string[];
}

type Kind = Pick<MicrophoneModel, 'alphaLow' | 'alphaHigh' | 'lowHz' | 'highHz'>;

const CARDIOID: Kind = { alphaLow: 0.57, alphaHigh: 0.5, lowHz: 45, highHz: 17_000 };
const TIGHT_CARDIOID: Kind = { ...CARDIOID, alphaLow: 0.53, alphaHigh: 0.47 };
const WIDE_CARDIOID: Kind = { ...CARDIOID, alphaLow: 0.66, alphaHigh: 0.6 };
const SUPERCARDIOID: Kind = { alphaLow: 0.41, alphaHigh: 0.38, lowHz: 60, highHz: 16_000 };
const HYPERCARDIOID: Kind = { alphaLow: 0.29, alphaHigh: 0.27, lowHz: 70, highHz: 15_500 };
const OMNI: Kind = { alphaLow: 0.98, alphaHigh: 0.86, lowHz: 22, highHz: 19_000 };
const EIGHT: Kind = { alphaLow: 0.04, alphaHigh: 0.03, lowHz: 55, highHz: 16_000 };
const RIBBON: Kind = { alphaLow: 0.06, alphaHigh: 0.05, lowHz: 35, highHz: 13_000 };

const mic = (
  kind: Kind,
  sensitivityMvPa: number,
  selfNoiseDbA: number,
  bells: readonly [hz: number, db: number, q: number][] = [],
  further: Partial<MicrophoneModel> = {},
): MicrophoneModel => ({
  ...kind,
  sensitivityMvPa,
  selfNoiseDbA,
  bells: bells.map(([hz, db, q]) => ({ hz, db, q })),
  puffDb: 18,
  ...further,
});

/** The desk changed its interface in this month; the reference microphone shows by how much. */
export const INTERFACE_CHANGE = '2022-04-01';

/** Sweeps, distances, plosives and the calibrator came with the second version of the protocol. */
export const PROTOCOL_CHANGE = '2022-06-01';

/** Plosives are read at 10 cm since then; the reference and the Sedge were recorded both ways. */
export const PLOSIVE_CHANGE = '2025-09-01';

/** The desk's chain, with the day from which it stood so. The control unit is the first of the units below. */
export const DEMO_RIGS = [
  {
    name: 'Loft desk',
    since: '2019-01-05',
    room: 'Net loft, carpet, shelves, window to the harbour shut',
    interface: 'Bitts & Cleat Fourfold, serial 118',
    preamp: 'of the interface',
    cables: 'the two grey ones',
    stand: 'boom with the brass marks',
    software: 'no processing, 48 kHz, 24 bit',
    inputFullScaleDbu: 14,
    sampleRateHz: 48_000,
    why: '',
  },
  {
    name: 'Loft desk',
    since: '2022-04-01',
    room: 'Net loft, carpet, shelves, window to the harbour shut',
    interface: 'Bitts & Cleat Eightfold, serial 402',
    preamp: 'of the interface',
    cables: 'the two grey ones',
    stand: 'boom with the brass marks',
    software: 'no processing, 48 kHz, 24 bit',
    inputFullScaleDbu: 14,
    sampleRateHz: 48_000,
    why: 'The Fourfold hissed, and its dial promised 3 dB more than it gave.',
  },
] as const;

/** Sessions that the demo has planned, days counted from today. */
export const DEMO_PLANS = [
  {
    title: 'Two loans before they go back',
    inDays: 2,
    units: [
      { model: 'Italic S', source: 'lent', backInDays: 6 },
      { model: 'Bosun', source: 'sent', backInDays: null },
    ],
    randomised: true,
    needs: [
      { what: 'XLR cable, 5 m', isThere: true },
      { what: 'Calibrator and its half-inch adapter', isThere: true },
      { what: 'Two 9 V cells', isThere: false },
    ],
    note: 'The foghorn is tested at noon: be done with the silences before.',
  },
  {
    title: 'Sedge again, and a repaired Long Reach',
    inDays: 9,
    units: [
      { model: 'Sedge', source: 'own', backInDays: null },
      { model: 'Long Reach', source: 'own', backInDays: null },
    ],
    randomised: false,
    needs: [{ what: 'XLR cable, 5 m', isThere: true }],
    note: '',
  },
] as const;

/** What happened to units between their tests. */
export const DEMO_EVENTS = [
  { model: 'Long Reach', kind: 'repair', day: '2025-10-30', note: 'New capsule lead; crackle gone in the workshop.' },
  { model: 'Beacon', kind: 'firmware', day: '2025-06-12', note: '2.1: another noise gate, says the maker.' },
] as const;

export const DEMO_UNITS: readonly DemoUnit[] = [
  {
    maker: 'Lodebell',
    model: 'Warden 2',
    label: 'reference',
    source: 'own',
    onDesk: true,
    dates: [
      '2019-03-09',
      '2020-02-29',
      '2021-10-16',
      '2022-02-05',
      '2022-04-23',
      '2023-02-25',
      '2024-05-11',
      '2025-01-18',
      '2025-09-06',
      '2025-11-15',
    ],
    closes: ['2025-11-15'],
    prices: [
      [349, 'street', '2019-03-09'],
      [379, 'street', '2025-09-06'],
    ],
    microphone: mic(TIGHT_CARDIOID, 18, 12, [[6000, 2, 1]], { puffDb: 14 }),
    sheet: 'full',
    sound: [4, 'Even and calm. The yardstick of the desk.'],
    features: [3, 'Low-cut and pad, no case.'],
    build: [4.5, 'Seven years, one dent.'],
  },
  {
    maker: 'Quillstone',
    model: 'Nib',
    label: 'A',
    source: 'bought',
    dates: ['2019-03-09'],
    prices: [
      [69, 'street', '2019-03-09'],
      [59, 'sale', '2020-11-27'],
    ],
    microphone: mic(WIDE_CARDIOID, 12, 22, [[4500, 4, 1.2]]),
    sound: [2.5, 'Forward, a little hard on s.'],
    features: [2, 'A cable and nothing else.'],
    build: [2.5, 'Plastic, but it holds.'],
  },
  {
    maker: 'Ternhook',
    model: 'TH-7',
    label: 'serial 0412',
    source: 'lent',
    dates: ['2019-05-18'],
    prices: [[229, 'street', '2019-05-18']],
    microphone: mic(SUPERCARDIOID, 2.2, 8, [
      [250, 2, 0.8],
      [5000, 3, 1],
    ]),
    sound: [3.5, 'Thick and close. Plain words carry.'],
    features: [2, 'A switch for bass.'],
    build: [4.5, 'Could drive nails.'],
  },
  {
    maker: 'Marlfen',
    model: 'Reed',
    label: 'A',
    source: 'bought',
    dates: ['2019-09-14'],
    prices: [[119, 'street', '2019-09-14']],
    microphone: mic(CARDIOID, 9, 19, [[3000, 2, 1]]),
    sound: [3, 'Honest, a bit boxy.'],
    features: [2.5, 'Mount and pouch in the box.'],
    build: [3, 'Light but neat.'],
  },
  {
    maker: 'Skerrywell',
    model: 'Long Reach',
    label: 'A',
    source: 'sent',
    dates: ['2019-11-02'],
    prices: [
      [549, 'list', '2019-11-02'],
      [499, 'street', '2020-06-01'],
    ],
    microphone: mic(HYPERCARDIOID, 32, 14, [[8000, 2, 0.9]]),
    sound: [3.5, 'Clear from afar; thin up close.'],
    features: [4, 'Two filters, two lengths, a case.'],
    build: [4, 'Fine threads, good paint.'],
  },
  {
    maker: 'Oarlock',
    model: 'Pilot',
    label: 'A',
    source: 'bought',
    dates: ['2020-02-08'],
    prices: [[39, 'street', '2020-02-08']],
    microphone: mic(WIDE_CARDIOID, 7, 31, [
      [3500, 5, 1.4],
      [180, -3, 0.8],
    ]),
    sound: [1.5, 'A telephone with ambitions.'],
    features: [2, 'A stand that tips.'],
    build: [1.5, 'Rattles.'],
  },
  {
    maker: 'Ternhook',
    model: 'TH-9 Broadcast',
    label: 'serial 0088',
    source: 'lent',
    dates: ['2020-02-08'],
    prices: [
      [429, 'street', '2020-02-08'],
      [389, 'sale', '2020-11-27'],
    ],
    microphone: mic(TIGHT_CARDIOID, 1.4, 6, [
      [120, 2, 0.8],
      [4200, 3, 1],
    ]),
    sound: [4.5, 'The announcer of the harbour. Nothing sticks out.'],
    features: [3, 'Two rocker switches under a plate.'],
    build: [5, 'A lamp post.'],
  },
  {
    maker: 'Quillstone',
    model: 'Broad Nib',
    label: 'A',
    source: 'bought',
    dates: ['2020-06-20'],
    prices: [[149, 'street', '2020-06-20']],
    microphone: mic(CARDIOID, 15, 15, [[9000, 3, 0.8]]),
    sound: [3.5, 'Open, a touch bright.'],
    features: [3, 'Pad, low-cut, mount.'],
    build: [3.5, 'Metal where it counts.'],
  },
  {
    maker: 'Haafwick',
    model: 'Ribbon One',
    label: 'A',
    source: 'bought',
    dates: ['2020-10-10'],
    prices: [[499, 'street', '2020-10-10']],
    microphone: mic(RIBBON, 1.1, 10, [[250, 2, 0.7]]),
    sound: [4.5, 'Dark and soft; radio plays love it.'],
    features: [1.5, 'None, and do not switch on the phantom.'],
    build: [3.5, 'Pretty, and afraid of wind.'],
  },
  {
    maker: 'Marlfen',
    model: 'Reed II',
    label: 'A',
    source: 'bought',
    dates: ['2021-01-23'],
    prices: [[129, 'street', '2021-01-23']],
    microphone: mic(CARDIOID, 11, 15, [
      [3000, 1, 1],
      [10000, 1.5, 0.8],
    ]),
    sound: [3.5, 'The box of the first one is gone.'],
    features: [2.5, 'As before.'],
    build: [3, 'As before.'],
  },
  {
    maker: 'Skerrywell',
    model: 'Near Reach',
    label: 'A',
    source: 'lent',
    dates: ['2021-04-17'],
    prices: [[279, 'street', '2021-04-17']],
    microphone: mic(SUPERCARDIOID, 22, 16, [[7000, 2.5, 0.9]]),
    sound: [3.5, 'Crisp; watch the sibilants.'],
    features: [3.5, 'Low-cut at two corners.'],
    build: [4, 'Like its big sister.'],
  },
  {
    maker: 'Brackwater',
    model: 'Lantern',
    label: 'A',
    source: 'sent',
    dates: ['2021-07-03'],
    prices: [
      [199, 'street', '2021-07-03'],
      [159, 'sale', '2022-11-25'],
    ],
    microphone: mic(WIDE_CARDIOID, 20, 17, [[5500, 5, 1.5]]),
    sound: [2.5, 'A bright hole and a bright hill.'],
    features: [4.5, 'Mute, dial, meter, headphones.'],
    build: [3, 'The dial wobbles.'],
  },
  {
    maker: 'Brackwater',
    model: 'Lantern',
    label: 'B, later batch',
    source: 'bought',
    dates: ['2021-10-16'],
    prices: [[199, 'street', '2021-07-03']],
    microphone: mic(CARDIOID, 21, 18, [[5500, 3, 1.4]]),
    sound: [3, 'The hill is lower than on A.'],
    features: [4.5, 'Mute, dial, meter, headphones.'],
    build: [3.5, 'The dial does not wobble.'],
  },
  {
    maker: 'Oarlock',
    model: 'Skipper',
    label: 'A',
    source: 'bought',
    dates: ['2022-01-15'],
    prices: [[89, 'street', '2022-01-15']],
    microphone: mic(WIDE_CARDIOID, 10, 24, [[3500, 3, 1.2]]),
    sound: [2.5, 'Better than the price, not than the next step.'],
    features: [3, 'Mute that clicks.'],
    build: [2.5, 'Does not rattle.'],
  },
  {
    maker: 'Lodebell',
    model: 'Warden Omni',
    label: 'A',
    source: 'lent',
    dates: ['2022-04-23'],
    prices: [[399, 'street', '2022-04-23']],
    microphone: mic(OMNI, 20, 11, [[12000, 2, 0.8]]),
    sound: [4, 'The truth, with the whole room.'],
    features: [2.5, 'Grilles for near and far.'],
    build: [4.5, 'As the reference.'],
  },
  {
    maker: 'Ternhook',
    model: 'TH-7',
    label: 'serial 2907',
    source: 'bought',
    dates: ['2022-08-13'],
    prices: [[239, 'street', '2022-08-13']],
    microphone: mic(SUPERCARDIOID, 2.1, 8, [
      [250, 2, 0.8],
      [5000, 3.4, 1],
    ]),
    sound: [3.5, 'As the first one, as far as ears go.'],
    features: [2, 'A switch for bass.'],
    build: [4.5, 'Could drive nails.'],
  },
  {
    maker: 'Haafwick',
    model: 'Ribbon Two',
    label: 'A',
    source: 'lent',
    dates: ['2022-11-19'],
    prices: [[899, 'street', '2022-11-19']],
    microphone: mic({ ...RIBBON, highHz: 15_500 }, 9, 12, [[250, 1, 0.7]], { puffDb: 27 }),
    sheet: 'unweighted',
    sound: [4.5, 'The dark one with the window open.'],
    features: [2.5, 'Takes phantom, and needs it.'],
    build: [4, 'A cage within a cage.'],
  },
  {
    maker: 'Quillstone',
    model: 'Italic',
    label: 'A',
    source: 'sent',
    dates: ['2023-02-25'],
    prices: [[259, 'street', '2023-02-25']],
    microphone: mic(TIGHT_CARDIOID, 19, 9, [[10000, 2, 0.7]], { puffDb: 16 }),
    sheet: 'full',
    sound: [4, 'Quiet, airy, never sharp.'],
    features: [3.5, 'Pad, low-cut, mount, case.'],
    build: [4, 'Good weight.'],
  },
  {
    maker: 'Marlfen',
    model: 'Bulrush',
    label: 'A',
    source: 'bought',
    dates: ['2023-06-10'],
    prices: [[319, 'street', '2023-06-10']],
    microphone: mic(SUPERCARDIOID, 14, 18, [[4000, 2, 1]], { puffDb: 21, lowCut: { hz: 95, order: 2 } }),
    sheet: 'unweighted',
    sound: [3, 'Fine, and 200 more than the Reed.'],
    features: [3, 'A foam ball and a clip.'],
    build: [3, 'The switch is loose.'],
  },
  {
    maker: 'Skerrywell',
    model: 'Long Reach',
    label: 'B, after repair',
    source: 'own',
    dates: ['2023-09-30'],
    prices: [[499, 'street', '2020-06-01']],
    microphone: mic(HYPERCARDIOID, 31, 17, [[8000, 2.5, 0.9]]),
    diedAfter: 'silence',
    sound: [3, 'A crackle came back after ten minutes; it died before the rear take.'],
    features: [4, 'Two filters, two lengths, a case.'],
    build: [2.5, 'Twice at the workshop.'],
  },
  {
    maker: 'Brackwater',
    model: 'Beacon',
    label: 'A',
    source: 'sent',
    dates: ['2024-01-27'],
    prices: [[349, 'street', '2024-01-27']],
    microphone: mic(CARDIOID, 24, 13, [[5500, 1.5, 1]], { whine: { hz: [1000, 2000, 3000, 4000, 8000], dbSpl: 9 } }),
    sheet: 'full',
    sound: [4, 'The Lantern grown up.'],
    features: [5, 'Everything, and it remembers it.'],
    build: [4, 'The dial is a joy.'],
  },
  {
    maker: 'Oarlock',
    model: 'Commodore',
    label: 'A',
    source: 'bought',
    dates: ['2024-05-11'],
    prices: [
      [1290, 'list', '2024-05-11'],
      [1190, 'street', '2024-09-01'],
    ],
    microphone: mic(CARDIOID, 26, 12, [[7000, 3, 0.9]], { puffDb: 20 }),
    sheet: 'full',
    sound: [3.5, 'Good. So is the Italic, at a fifth.'],
    features: [3.5, 'A wooden box.'],
    build: [4.5, 'Heavy.'],
  },
  {
    maker: 'Lodebell',
    model: 'Tidemark',
    label: 'A',
    source: 'lent',
    dates: ['2024-09-21'],
    prices: [[649, 'street', '2024-09-21']],
    microphone: mic(SUPERCARDIOID, 28, 8, [[9000, 1.5, 0.8]], { puffDb: 13 }),
    sheet: 'full',
    sound: [5, 'Closer than close, without a trace of effort.'],
    features: [4, 'Three patterns on a ring.'],
    build: [4.5, 'As everything they make.'],
    configurations: [
      { pattern: 'wide cardioid', microphone: mic(WIDE_CARDIOID, 27, 9, [[9000, 1.5, 0.8]], { puffDb: 12 }) },
      { pattern: 'figure of eight', microphone: mic(EIGHT, 24, 10, [[9000, 1, 0.8]], { puffDb: 16 }) },
    ],
  },
  {
    maker: 'Marlfen',
    model: 'Sedge',
    label: 'A',
    source: 'bought',
    dates: ['2025-01-18', '2025-09-06'],
    prices: [
      [79, 'street', '2025-01-18'],
      [69, 'sale', '2025-11-20'],
    ],
    microphone: mic(CARDIOID, 16, 14, [[6000, 1, 0.9]], { puffDb: 17 }),
    sheet: 'full',
    sound: [4, 'The cheap one that beats the dear one of the same house.'],
    features: [2.5, 'A cable, a clip.'],
    build: [3, 'Light.'],
  },
  {
    maker: 'Ternhook',
    model: 'TH-11',
    label: 'pre-series',
    source: 'sent',
    dates: ['2025-05-24'],
    prices: [[459, 'list', '2025-05-24']],
    microphone: mic(HYPERCARDIOID, 2.6, 7, [
      [150, 1.5, 0.8],
      [4500, 2, 1],
    ]),
    sound: [4, 'As the TH-9, with less of the room.'],
    features: [3, 'Switches where fingers are.'],
    build: [5, 'A shorter lamp post.'],
  },
  {
    maker: 'Quillstone',
    model: 'Italic S',
    label: 'A',
    source: 'lent',
    dates: ['2025-10-25'],
    allVoices: ['2025-10-25'],
    onDesk: true,
    prices: [[299, 'street', '2025-10-25']],
    microphone: mic(SUPERCARDIOID, 20, 10, [[10000, 2.5, 0.7]], { puffDb: 15 }),
    sheet: 'unweighted',
    sound: null,
    features: [3.5, 'As the Italic.'],
    build: [4, 'As the Italic.'],
  },
  {
    maker: 'Oarlock',
    model: 'Bosun',
    label: 'A',
    source: 'sent',
    dates: ['2025-11-15'],
    onDesk: true,
    prices: [[109, 'street', '2025-11-15']],
    microphone: mic(WIDE_CARDIOID, 13, 20, [[4000, 3, 1.2]], {
      puffDb: 23,
      hum: { hz: [50, 100, 150, 250], dbSpl: 20 },
    }),
    sheet: 'unweighted',
    sound: null,
    features: null,
    build: [3, 'Does not rattle either.'],
  },
];

/** What makers say of the sound, on their boxes. */
export const DEMO_MAKERS_WORDS: Readonly<Record<string, readonly string[]>> = {
  Lantern: ['bright', 'airy'],
  'Ribbon Two': ['full', 'like velvet'],
  Nib: ['natural'],
  Tidemark: ['natural', 'full'],
  Commodore: ['bright'],
};
