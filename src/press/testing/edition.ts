import type { Edition, FrozenLane } from '#contracts/edition';
import { emptyReview } from '#domain/review/shipped-house';
import { reviewTextSchema } from '#contracts/review';

export const lane = (name: string, role: FrozenLane['role'], change: Partial<FrozenLane> = {}): FrozenLane => ({
  sha256: name.padEnd(64, '0').replaceAll(/[^0-9a-f]/g, 'a'),
  unit: name,
  name,
  words: '',
  date: '2025-05-01',
  role,
  appliedDb: -3.2,
  durationS: 12,
  isLoud: false,
  map: null,
  ...change,
});

/** An edition with one of everything. */
export const edition = (change: Partial<Edition> = {}): Edition => ({
  format: 'sediment-edition/1',
  review: '7',
  number: 2,
  publishedOn: '2025-05-24',
  desk: 'Tidewrack Audio Desk',
  clipLicence: 'Free to share, named',
  unit: { id: '1', maker: 'Thole', model: 'Quiet', label: 'A', category: 'microphone', kind: 'Microphone' },
  text: {
    ...reviewTextSchema.parse(emptyReview()),
    headline: 'Quiet & <plain>',
    summary: 'It is *quiet*.\n\n- and light',
    pros: [{ text: 'Quieter than 84 % of its kind', restsOn: null }],
    cons: [{ text: 'Needs a 12 V supply', restsOn: null }],
    uses: [
      { use: 'Voice-over', suits: 'for', text: 'quiet', restsOn: null },
      { use: 'Drums', suits: 'not for', text: 'it clips', restsOn: null },
    ],
    alternatives: [{ unit: '2', name: 'Thole Cheap · A', text: 'as good for less', restsOn: null }],
    turningPrice: { amount: 90, currency: 'EUR', text: 'Below 90 EUR nothing is as good', restsOn: null },
    obtained: 'lent',
    afterwards: 'went back',
    disclosure: 'No fee.',
    conditions: 'A loft by a harbour.',
    sums: [{ text: 'Gain for a quiet voice; Left over: 3.5 dB', restsOn: null }],
    notTested: [{ text: 'Not measured: handling', restsOn: null }],
    appliedBoosts: '+6 dB',
    links: [{ label: 'The protocol', address: 'https://tidewrack.example/protocol' }],
  },
  figures: [
    { quantity: 'noiseReSpeechA', name: 'Noise re speech, A-weighted', unit: 'dB(A)', group: 'noise', value: -66.2, uncertainty: 0.4, anotherReading: null, bound: 'exact', condition: 'gated | pauses', notMeasured: null, day: '2025-05-01', protocol: 'desk 2', text: '−66.2 ±0.4 dB(A)' }, // prettier-ignore
    { quantity: 'rearRejection', name: 'Rear rejection of speech', unit: 'dB', group: 'rejects', value: null, uncertainty: null, anotherReading: null, bound: 'exact', condition: '', notMeasured: 'No take from behind.', day: '2025-05-01', protocol: 'desk 2', text: 'not measured' }, // prettier-ignore
  ],
  words: {
    heard: [
      { word: 'full', count: 3 },
      { word: 'dull', count: 1 },
    ],
    measured: [{ word: 'bright', why: 'Presence 4 dB: more than 9 of 10 others of its kind' }],
    maker: ['warm <&>'],
    contradictions: ['listeners say dull, the figures say bright'],
  },
  claims: [{ name: 'Equivalent noise level', claimed: '14 dB', measured: 'not measured', remark: '' }],
  price: { amount: 120, currency: 'EUR', kind: 'street', date: '2025-01-01' },
  prices: [{ amount: 120, currency: 'EUR', kind: 'street', date: '2025-01-01' }],
  ranking: {
    own: '1',
    rulesVersion: 3,
    stratumProbability: 0.9,
    criteria: [{ id: 'noise', name: 'Noise', meaning: 'Quiet.', share: 0.5, points: 4, why: 'by the curve' }],
    of: 2,
    rows: [
      {
        unit: '1',
        name: 'Thole Quiet · A',
        place: 1,
        stratum: 1,
        composite: 4,
        composite90: [3.8, 4.2],
        rank90: [1, 1],
      },
      {
        unit: '2',
        name: 'Thole Cheap · A',
        place: 2,
        stratum: 2,
        composite: 3,
        composite90: [2.8, 3.2],
        rank90: [2, 2],
      },
    ],
  },
  frontier: {
    currency: 'EUR',
    units: [
      { unit: '2', name: 'Thole Cheap · A', price: 90, composite: 3, isOnFrontier: true },
      { unit: '1', name: 'Thole Quiet · A', price: 120, composite: 4, isOnFrontier: true },
    ],
  },
  response: { points: [{ hz: 20, db: -6 }, { hz: 1000, db: 0 }, { hz: 20_000, db: -4 }], lowestValidHz: 100 }, // prettier-ignore
  grid: null,
  decks: [
    { step: 'speech', title: 'Spoken passage', targetLufs: -23, lanes: [lane('Thole Quiet · A', 'this unit'), lane('Thole Cheap · A', 'another unit', { isLoud: true })] }, // prettier-ignore
  ],
  chapters: [{ atS: 0, title: 'Spoken passage: Thole Quiet · A' }],
  settings: [{ step: 'Spoken passage', text: '40 dB of gain, 15 cm' }],
  photographs: [],
  runs: [{ date: '2025-05-01', protocol: 'desk', version: 2, rig: 'Loft' }],
  made: { software: '0.1.0', algorithm: 3, runFigures: 3 },
  changes: [{ what: 'price', text: 'Price: 130 EUR → 120 EUR' }],
  ...change,
});
