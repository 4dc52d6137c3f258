import type { QuantityDefinition } from './quantity-definition';

/** What hands, breath, wind and radio links do. */
export const BEHAVIOUR_QUANTITIES = {
  plosives: {
    name: 'Plosives re speech',
    unit: 'dB',
    decimals: 1,
    definition:
      'Peak level at 20–120 Hz of each puff of air, mean of the puffs, re the gated loudness of the speech in the same take.',
    source: 'common practice, no source',
    group: 'behaves',
    steps: ['plosive'],
    better: 'lower',
  },
  sibilance: {
    name: 'Sibilance',
    unit: 'dB',
    decimals: 1,
    definition: 'Power at 5–10 kHz re 1–5 kHz in the frames that hold a fricative, 90th percentile.',
    source: 'common practice, no source',
    group: 'sound',
    steps: ['speech'],
    better: null,
  },
  handlingZ: {
    name: 'Handling noise re speech, unweighted',
    unit: 'dB',
    decimals: 1,
    definition:
      'Loudest third of a second of the take in which somebody knocks, re the gated loudness of the passage, at equal gain.',
    source: 'common practice, no source',
    group: 'behaves',
    steps: ['speech', 'handling'],
    better: 'lower',
  },
  handlingA: {
    name: 'Handling noise re speech, A-weighted',
    unit: 'dB(A)',
    decimals: 1,
    definition: 'As unweighted, each frequency weighted by the analytic A curve.',
    source: 'common practice, no source; IEC 61672-1 Annex E',
    group: 'behaves',
    steps: ['speech', 'handling'],
    better: 'lower',
  },
  windLow: {
    name: 'Wind below 200 Hz re speech',
    unit: 'dB',
    decimals: 1,
    definition:
      'Level of the third octaves 20–200 Hz of the take in the wind re the gated loudness of the passage, at equal gain; the condition names the wind speed.',
    source: 'common practice, no source',
    group: 'behaves',
    steps: ['speech', 'wind'],
    better: 'lower',
  },
  windA: {
    name: 'Wind re speech, A-weighted',
    unit: 'dB(A)',
    decimals: 1,
    definition: 'A-weighted level of the take in the wind re the gated loudness of the passage, at equal gain.',
    source: 'common practice, no source; IEC 61672-1 Annex E',
    group: 'behaves',
    steps: ['speech', 'wind'],
    better: 'lower',
  },
  dropOuts: {
    name: 'Drop-outs',
    unit: 'holes',
    decimals: 0,
    definition: 'Gaps (one value held) and repeats (the same samples once more) of 5 ms or longer.',
    source: 'common practice, no source',
    group: 'behaves',
    steps: ['any'],
    better: 'lower',
  },
} as const satisfies Record<string, QuantityDefinition>;
