import { gainBudget, gainBudgetWords } from '#core/sums/gain-budget';
import {
  clippingDbSpl,
  delaySamples,
  directToReverberantDb,
  distanceDb,
  headphoneLevel,
  listeningHours,
  loadingLossDb,
  phantomVolts,
  recordingHours,
  soundDelayMs,
} from '#core/sums/small-sums';
import { formatNumber } from '../../ui/format';
import type { Sum, SumField, SumPart } from './sum';

const MICROPHONE: SumPart = { id: 'microphone', label: 'Microphone', kinds: ['microphone', 'field-microphone'] };
const INTERFACE: SumPart = { id: 'interface', label: 'Interface', kinds: ['interface'] };
const BOOSTER: SumPart = { id: 'booster', label: 'Booster', kinds: ['booster'] };
const HEADPHONES: SumPart = { id: 'headphones', label: 'Headphones', kinds: ['headphones'] };

const OHMS = { unit: 'Ω', units: { kΩ: 1000, k: 1000, ohm: 1 }, least: 0.01, most: 10_000_000 } as const;
const DB = { unit: 'dB', least: -200, most: 200 } as const;
const METRES = { unit: 'm', units: { cm: 0.01, mm: 0.001, km: 1000 }, least: 0.001, most: 10_000 } as const;

const SENSITIVITY: SumField = {
  id: 'sensitivity',
  label: 'Sensitivity',
  sheet: { unit: 'mV/Pa', least: 0.001, most: 1000 },
  usual: null,
  from: { part: 'microphone', quantity: 'sensitivity', field: 'sensitivity', unit: 'mV/Pa' },
};
const SOURCE_OHMS: SumField = {
  id: 'sourceOhms',
  label: 'Source impedance',
  sheet: OHMS,
  usual: 150,
  from: { part: 'microphone', field: 'outputImpedance', unit: 'Ω' },
};

const db = (value: number, decimals = 1): string => `${formatNumber(value, decimals)} dB`;
const line = (label: string, text: string) => ({ label, text });

/** Small calculations of the trade, in the order in which gear is put together. */
export const SUMS: readonly Sum[] = [
  {
    id: 'drive',
    title: 'Does this interface drive that microphone?',
    parts: [MICROPHONE, INTERFACE, BOOSTER],
    fields: [
      SENSITIVITY,
      {
        id: 'selfNoise',
        label: 'Self-noise; empty: no electronics',
        sheet: { unit: 'dB SPL(A)', units: { 'dB SPL': 1, dBA: 1 }, least: 0, most: 60 },
        usual: null,
        isOptional: true,
        from: { part: 'microphone', field: 'selfNoise', unit: 'dB SPL' },
      },
      SOURCE_OHMS,
      { id: 'speech', label: 'Voice at the capsule', sheet: { unit: 'dB SPL', least: 20, most: 160 }, usual: 80 },
      { id: 'crest', label: 'Peaks above it', sheet: DB, usual: 15 },
      { id: 'target', label: 'Peaks wanted at', sheet: { unit: 'dBFS', least: -60, most: 0 }, usual: -10 },
      {
        id: 'fullScale',
        label: 'Highest input level, least gain',
        sheet: { unit: 'dBu', least: -60, most: 40 },
        usual: null,
        from: { part: 'interface', quantity: 'mostInput', field: 'mostInput', unit: 'dBu' },
      },
      {
        id: 'ein',
        label: 'Input noise, 150 Ω',
        sheet: { unit: 'dBu(A)', units: { dBu: 1 }, least: -140, most: -60 },
        usual: null,
        from: { part: 'interface', quantity: 'einA', field: 'einA', unit: 'dBu' },
      },
      {
        id: 'mostGain',
        label: 'Most gain',
        sheet: DB,
        usual: null,
        isOptional: true,
        from: { part: 'interface', field: 'mostGain', unit: 'dB' },
      },
      {
        id: 'boosterGain',
        label: 'Gain of a booster',
        sheet: DB,
        usual: null,
        isOptional: true,
        from: { part: 'booster', quantity: 'gainAdded', field: 'addedGain', unit: 'dB' },
      },
      {
        id: 'boosterEin',
        label: 'Its input noise',
        sheet: { unit: 'dBu(A)', units: { dBu: 1 }, least: -140, most: -60 },
        usual: -130,
        isOptional: true,
      },
    ],
    formula:
      'Gain = target + full-scale input − (sensitivity re 1 V in dBu + level − 94 dB + peaks − 3 dB) − booster. Noise: powers of all parts at the microphone, each divided by the gain before it (Friis).',
    cautions: ['phantom'],
    answer: (value, optional) => {
      const boosterGain = optional('boosterGain');
      const budget = gainBudget({
        sensitivityMvPa: value('sensitivity'),
        speechDbSpl: value('speech'),
        crestDb: value('crest'),
        targetDbfs: value('target'),
        fullScaleDbu: value('fullScale'),
        mostGainDb: optional('mostGain'),
        einDbuA: value('ein'),
        selfNoiseDbA: optional('selfNoise'),
        sourceOhms: value('sourceOhms'),
        booster:
          boosterGain === null ? null : { gainDb: boosterGain, einDbuA: optional('boosterEin') ?? USUAL_BOOSTER_EIN },
      });
      const { parts } = budget;
      const spl = (dbSpl: number): string => `${formatNumber(dbSpl, 1)} dB SPL(A)`;
      return {
        lines: [
          line('Gain needed above the least', db(budget.gainDb)),
          ...(budget.marginDb === null ? [] : [line('To spare', db(budget.marginDb))]),
          line('Noise of all, as sound', spl(budget.noiseDbA)),
          line('Voice above it', db(budget.speechAboveNoiseDb)),
          line('of which the microphone', spl(parts.microphone)),
          ...(parts.booster === null || !Number.isFinite(parts.booster)
            ? []
            : [line('of which the booster', spl(parts.booster))]),
          ...(Number.isFinite(parts.interface) ? [line('of which the interface', spl(parts.interface))] : []),
          ...(budget.boosterGainsDb === null ? [] : [line('Quieter by the booster', db(budget.boosterGainsDb))]),
        ],
        words: gainBudgetWords(budget),
        marks: [
          { label: 'noise of all', value: budget.noiseDbA },
          { label: 'voice', value: value('speech') },
          { label: 'its peaks', value: value('speech') + value('crest') },
          { label: 'full scale', value: value('speech') + value('crest') - value('target') },
        ],
        markUnit: 'dB SPL',
      };
    },
  },
  {
    id: 'headphones',
    title: 'How loud do these headphones get?',
    parts: [HEADPHONES, INTERFACE],
    fields: [
      {
        id: 'load',
        label: 'Impedance of the headphones',
        sheet: OHMS,
        usual: null,
        from: { part: 'headphones', quantity: 'impedance', field: 'impedance', unit: 'Ω' },
      },
      {
        id: 'perMw',
        label: 'Sensitivity at 1 mW',
        sheet: { unit: 'dB SPL/mW', units: { dB: 1 }, least: 50, most: 150 },
        usual: null,
        isOptional: true,
        from: { part: 'headphones', quantity: 'sensitivityPerPower', field: 'sensitivityPerPower', unit: 'dB SPL/mW' },
      },
      {
        id: 'perVolt',
        label: 'or at 1 V',
        sheet: { unit: 'dB SPL/V', units: { dB: 1 }, least: 50, most: 170 },
        usual: null,
        isOptional: true,
        from: {
          part: 'headphones',
          quantity: 'sensitivityPerVoltage',
          field: 'sensitivityPerVoltage',
          unit: 'dB SPL/V',
        },
      },
      { id: 'open', label: 'Highest voltage, open', sheet: { unit: 'V', units: { mV: 0.001 }, least: 0.001, most: 100 }, usual: null }, // prettier-ignore
      {
        id: 'output',
        label: 'Impedance of the output',
        sheet: OHMS,
        usual: 1,
        from: { part: 'interface', quantity: 'headphoneImpedance', field: 'headphoneImpedance', unit: 'Ω' },
      },
    ],
    formula: 'V = V open · Z / (Z + Z output); P = V² / Z; level = sensitivity + 10·lg(P / 1 mW), or + 20·lg(V / 1 V).',
    cautions: ['hearing'],
    answer: (value, optional) => {
      const [perMw, perVolt] = [optional('perMw'), optional('perVolt')];
      const isKnown = perMw !== null || perVolt !== null;
      const sensitivity = perMw !== null ? { dbPerMw: perMw } : { dbPerVolt: perVolt ?? 0 };
      const level = headphoneLevel(value('open'), value('output'), value('load'), sensitivity);
      const hours = listeningHours(level.dbSpl);
      const isDamped = level.damping >= LEAST_DAMPING;
      return {
        lines: [
          line('At the headphones', `${formatNumber(level.volts, 2)} V`),
          line('Power', `${formatNumber(level.milliwatts, 1)} mW`),
          line('Loudest', isKnown ? `${formatNumber(level.dbSpl, 0)} dB SPL` : 'needs a sensitivity'),
          line('Lost in the output', db(-level.lossDb)),
        ],
        words: [
          isDamped
            ? 'The output is stiff enough for any impedance curve: less than one eighth of the headphones.'
            : `The output has more than one eighth of the headphones’ impedance: their response may change by up to ${db(-level.lossDb)}.`,
          ...(isKnown && level.dbSpl > 85
            ? [`At the most, occupational practice would end the day after ${hours >= 1 ? `${formatNumber(hours, 1)} hours` : hours * 3600 >= 60 ? `${formatNumber(hours * 60, 0)} minutes` : 'less than a minute'}.`] // prettier-ignore
            : []),
        ],
        marks: isKnown
          ? [
              { label: 'talk', value: 60 },
              { label: '85 dB, 8 h', value: 85 },
              { label: 'loudest', value: level.dbSpl },
            ]
          : [],
        markUnit: 'dB SPL',
      };
    },
  },
  {
    id: 'distance',
    title: 'How much does distance cost?',
    parts: [],
    fields: [
      { id: 'from', label: 'From', sheet: METRES, usual: 0.15 },
      { id: 'to', label: 'to', sheet: METRES, usual: 0.6 },
      { id: 'critical', label: 'Critical distance of the room', sheet: METRES, usual: null, isOptional: true },
    ],
    formula: 'Level: −20·lg(to / from). Direct re reverberant sound: 20·lg(critical distance / to).',
    cautions: [],
    answer: (value, optional) => {
      const critical = optional('critical');
      const ratio = critical === null ? null : directToReverberantDb(critical, value('to'));
      return {
        lines: [
          line('Level', db(distanceDb(value('from'), value('to')))),
          ...(ratio === null ? [] : [line('Direct re reverberant', db(ratio))]),
        ],
        words: ratio === null ? [] : [ratio < 0 ? 'There the room is louder than the voice.' : ratio < 6 ? 'There the room is heard beside the voice.' : 'There the voice still stands before the room.'], // prettier-ignore
        marks: [
          { label: `at ${value('from')} m`, value: 0 },
          { label: `at ${value('to')} m`, value: distanceDb(value('from'), value('to')) },
        ],
        markUnit: 'dB',
      };
    },
  },
  {
    id: 'clipping',
    title: 'Which level clips?',
    parts: [MICROPHONE, INTERFACE],
    fields: [
      SENSITIVITY,
      {
        id: 'mostLevel',
        label: 'Highest level of the microphone',
        sheet: { unit: 'dB SPL', least: 60, most: 190 },
        usual: null,
        isOptional: true,
        from: { part: 'microphone', field: 'maximumLevel', unit: 'dB SPL' },
      },
      {
        id: 'mostInput',
        label: 'Highest input level, least gain',
        sheet: { unit: 'dBu', least: -60, most: 40 },
        usual: null,
        from: { part: 'interface', quantity: 'mostInput', field: 'mostInput', unit: 'dBu' },
      },
      { id: 'gain', label: 'Gain', sheet: DB, usual: 0 },
      { id: 'pad', label: 'Pad', sheet: { unit: 'dB', least: 0, most: 60 }, usual: 0 },
    ],
    formula: 'Level = highest input − gain + pad − 20·lg(sensitivity / 0.7746 V) + 94 dB.',
    cautions: ['hearing'],
    answer: (value, optional) => {
      const ofInput = clippingDbSpl(value('sensitivity'), value('mostInput') - value('gain') + value('pad'));
      const ofMicrophone = optional('mostLevel');
      const first = ofMicrophone !== null && ofMicrophone < ofInput ? 'The microphone' : 'The input';
      return {
        lines: [
          line('The input clips at', `${formatNumber(ofInput, 1)} dB SPL`),
          ...(ofMicrophone === null ? [] : [line('The microphone at', `${formatNumber(ofMicrophone, 1)} dB SPL`)]),
        ],
        words: ofMicrophone === null ? [] : [`${first} gives out first.`],
        marks: [
          { label: 'speech', value: 80 },
          { label: 'input', value: ofInput },
          ...(ofMicrophone === null ? [] : [{ label: 'microphone', value: ofMicrophone }]),
        ],
        markUnit: 'dB SPL',
      };
    },
  },
  {
    id: 'loading',
    title: 'What does the input take away?',
    parts: [MICROPHONE, INTERFACE],
    fields: [
      SOURCE_OHMS,
      {
        id: 'input',
        label: 'Input impedance',
        sheet: OHMS,
        usual: null,
        from: { part: 'interface', field: 'inputImpedance', unit: 'Ω' },
      },
      { id: 'other', label: 'against another', sheet: OHMS, usual: 3000 },
    ],
    formula: 'Loss = 20·lg(Z input / (Z input + Z source)).',
    cautions: [],
    answer: (value) => {
      const [loss, other] = [value('input'), value('other')].map((ohms) => loadingLossDb(value('sourceOhms'), ohms));
      return {
        lines: [
          line('Level', db(loss, 2)),
          line('At the other', db(other, 2)),
          line('Between them', db(loss - other, 2)),
        ],
        words: ['A source whose impedance rises at some frequencies loses more there than elsewhere.'],
        marks: [
          { label: 'open', value: 0 },
          { label: 'this', value: loss },
          { label: 'the other', value: other },
        ],
        markUnit: 'dB',
      };
    },
  },
  {
    id: 'phantom',
    title: 'Is there enough phantom power?',
    parts: [MICROPHONE],
    fields: [
      {
        id: 'current',
        label: 'Current that it draws',
        sheet: { unit: 'mA', least: 0, most: 100 },
        usual: null,
        from: { part: 'microphone', field: 'phantomCurrent', unit: 'mA' },
      },
      { id: 'volts', label: 'Supply', sheet: { unit: 'V', least: 1, most: 60 }, usual: 48 },
      { id: 'ohms', label: 'Resistor to each pin', sheet: OHMS, usual: 6800 },
    ],
    formula: 'V at the microphone = V supply − I · R / 2 (IEC 61938: 48 V by 6.8 kΩ, 10 mA at the most).',
    cautions: ['phantom'],
    answer: (value) => {
      const left = phantomVolts(value('current'), value('volts'), value('ohms'));
      return {
        lines: [line('Left at the microphone', left > 0 ? `${formatNumber(left, 1)} V` : 'nothing')],
        words: [
          left <= 0
            ? 'The supply cannot give that current.'
            : value('current') > 10
              ? 'More than a supply has to give.'
              : 'Within what a supply has to give.',
        ],
        marks: [],
        markUnit: '',
      };
    },
  },
  {
    id: 'delay',
    title: 'What brings two ways to one moment?',
    parts: [],
    fields: [
      { id: 'link', label: 'Delay of a link', sheet: { unit: 'ms', units: { s: 1000 }, least: 0, most: 10_000 }, usual: 0 }, // prettier-ignore
      { id: 'metres', label: 'Way through the air', sheet: METRES, usual: null, isOptional: true },
      {
        id: 'rate',
        label: 'Sample rate',
        sheet: { unit: 'kHz', units: { Hz: 0.001 }, least: 8, most: 384 },
        usual: 48,
      },
    ],
    formula: 'Through the air: 1 s for 343 m at 20 °C. Samples = time · rate.',
    cautions: [],
    answer: (value, optional) => {
      const metres = optional('metres');
      const air = metres === null ? 0 : soundDelayMs(metres);
      const apart = value('link') - air;
      return {
        lines: [
          line('Through the air', `${formatNumber(air, 2)} ms`),
          line('Delay the earlier by', `${formatNumber(Math.abs(apart), 2)} ms`),
          line('which is', `${formatNumber(delaySamples(Math.abs(apart), 1000 * value('rate')), 1)} samples`),
        ],
        words: [apart > 0 ? 'The link comes later: delay the other.' : apart < 0 ? 'The air is slower: delay the link.' : 'Both come together.'], // prettier-ignore
        marks: [],
        markUnit: '',
      };
    },
  },
  {
    id: 'recording',
    title: 'How long can it record?',
    parts: [],
    fields: [
      { id: 'card', label: 'Free on the card', sheet: { unit: 'GB', units: { TB: 1000, MB: 0.001 }, least: 0.01, most: 100_000 }, usual: 32 }, // prettier-ignore
      {
        id: 'rate',
        label: 'Sample rate',
        sheet: { unit: 'kHz', units: { Hz: 0.001 }, least: 8, most: 384 },
        usual: 48,
      },
      { id: 'bits', label: 'Bits', sheet: { unit: '', isWhole: true, least: 8, most: 64 }, usual: 24 },
      { id: 'channels', label: 'Channels', sheet: { unit: '', isWhole: true, least: 1, most: 128 }, usual: 2 },
      { id: 'battery', label: 'Battery', sheet: { unit: 'h', units: { min: 1 / 60 }, least: 0.01, most: 1000 }, usual: null, isOptional: true }, // prettier-ignore
    ],
    formula: 'Time = bytes / (rate · bits / 8 · channels); the smaller of card and battery counts.',
    cautions: ['cells'],
    answer: (value, optional) => {
      const card = recordingHours(value('card'), 1000 * value('rate'), value('bits'), value('channels'));
      const battery = optional('battery');
      return {
        lines: [
          line('The card lasts', `${formatNumber(card, 1)} h`),
          ...(battery === null ? [] : [line('The battery', `${formatNumber(battery, 1)} h`)]),
        ],
        words: battery === null ? [] : [battery < card ? 'The battery ends first.' : 'The card is full first.'],
        marks: [],
        markUnit: '',
      };
    },
  },
];

/** Input noise that a booster is taken to have where nobody says so, dBu(A) (common practice, no source). */
const USUAL_BOOSTER_EIN = -130;
/** Headphones of eight times the output's impedance keep their response (common practice, no source). */
const LEAST_DAMPING = 8;
