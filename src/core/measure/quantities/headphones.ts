import type { QuantityDefinition } from './quantity-definition';

const SWEEPS = ['sweep', 'sweep-right'] as const;

/** What headphones do on an artificial ear, from sweeps of both sides, and from tables. */
export const HEADPHONES_QUANTITIES = {
  sideLevel: {
    name: 'Right side re left side',
    shortName: 'Right re left',
    unit: 'dB',
    decimals: 1,
    definition:
      'Mean response of the right side at 500 Hz–2 kHz minus that of the left one, on the same artificial ear, each the mean of its seatings.',
    source: 'IEC 60268-7 for the quantity (from memory); the band is common practice, no source',
    group: 'sound',
    steps: SWEEPS,
    better: null,
  },
  sideDifference: {
    name: 'Largest difference of the sides',
    shortName: 'Sides apart',
    unit: 'dB',
    decimals: 1,
    definition:
      'Largest difference between the responses of the two sides at 100 Hz–8 kHz in 1/3 octaves, each the mean of its seatings.',
    source: 'IEC 60268-7 for the quantity (from memory); IEC 61260-1 for the bands',
    group: 'sound',
    steps: SWEEPS,
    better: 'lower',
  },
  sealSpread: {
    name: 'Bass from one seating to the next',
    shortName: 'Bass by seating',
    unit: 'dB',
    decimals: 1,
    definition:
      'Standard deviation of the response at 40–100 Hz re 500 Hz–2 kHz over seatings of one side (taken off and put on again), both sides pooled: how much of the bass hangs on the seal.',
    source: 'common practice, no source',
    group: 'behaves',
    steps: ['sweep'],
    better: 'lower',
  },
  seatSpread: {
    name: 'Treble from one seating to the next',
    shortName: 'Treble by seating',
    unit: 'dB',
    decimals: 1,
    definition:
      'Standard deviation of the response at 4–10 kHz re 500 Hz–2 kHz over seatings of one side, third octave by third octave, root mean square over these and over both sides.',
    source: 'common practice, no source',
    group: 'behaves',
    steps: ['sweep'],
    better: 'lower',
  },
  impedance: {
    name: 'Impedance at 1 kHz',
    unit: 'Ω',
    decimals: 0,
    definition: 'Magnitude of the impedance of one side at 1 kHz, mean of the sides in the table.',
    source: 'IEC 60268-7 for the quantity (from memory)',
    group: 'drive',
    steps: ['impedance'],
    better: null,
  },
  outputColours: {
    name: 'Change by an output of 10 Ω',
    unit: 'dB',
    decimals: 1,
    definition:
      'What an output of 10 Ω adds to the response: the largest minus the smallest 20·log10(Z/(Z + 10 Ω)) over the frequencies of the table, larger of the two sides.',
    source: "Ohm's law",
    group: 'drive',
    steps: ['impedance'],
    better: 'lower',
  },
  sensitivityPerVoltage: {
    name: 'Level at 1 V',
    unit: 'dB SPL/V',
    decimals: 1,
    definition: 'Sound level of 1 kHz on the artificial ear at 1 V across one side, mean of the sides in the table.',
    source: 'IEC 60268-7 for the quantity (from memory)',
    group: 'drive',
    steps: ['ear-level'],
    better: null,
  },
  sensitivityPerPower: {
    name: 'Level at 1 mW',
    unit: 'dB SPL/mW',
    decimals: 1,
    definition: 'Level at 1 V, less what 1 V into the impedance at 1 kHz is above 1 mW: 10·log10(1000 Ω/Z).',
    source: "Ohm's law",
    group: 'drive',
    steps: ['ear-level', 'impedance'],
    better: null,
  },
} as const satisfies Record<string, QuantityDefinition>;
