/** Version of the whole set of algorithms; any change that moves a figure raises it. */
export const ALGORITHM_VERSION = 1;

/** What is known of a measurement before it is made. */
export interface QuantityDefinition {
  readonly name: string;
  readonly unit: string;
  /** Decimals that are shown; more would be noise. */
  readonly decimals: number;
  readonly definition: string;
  readonly source: string;
  /** Steps of a protocol that are needed, or "any" for figures of a single clip. */
  readonly steps: readonly string[];
  /** Which way is better, for tables that mark the best; null where it depends. */
  readonly better: 'higher' | 'lower' | null;
}

/**
 * Every measurement that Sediment makes. The interface, the command line and docs/measurements.md are made from
 * this list. To add one: a file in this folder, an entry here, a test beside it.
 */
export const QUANTITIES = {
  samplePeak: {
    name: 'Sample peak',
    unit: 'dBFS',
    decimals: 2,
    definition: 'Largest magnitude of any sample, 20·log10 re full scale.',
    source: 'AES17',
    steps: ['any'],
    better: null,
  },
  rms: {
    name: 'RMS level',
    unit: 'dBFS',
    decimals: 2,
    definition: 'Root mean square over the whole clip; a full-scale sine reads 0 dBFS (3.01 dB above plain RMS).',
    source: 'AES17',
    steps: ['any'],
    better: null,
  },
  crest: {
    name: 'Crest factor',
    unit: 'dB',
    decimals: 1,
    definition: 'Sample peak over plain root mean square; a sine has 3.01 dB.',
    source: 'IEC 60268-1',
    steps: ['any'],
    better: null,
  },
  dcOffset: {
    name: 'DC offset',
    unit: 'FS',
    decimals: 6,
    definition: 'Mean of all samples, as a part of full scale; the channel with the largest one.',
    source: 'AES17',
    steps: ['any'],
    better: 'lower',
  },
  clippedRuns: {
    name: 'Clipped runs',
    unit: 'runs',
    decimals: 0,
    definition:
      'Places where three or more successive samples stand equal at the highest or lowest value of the clip, when that value is within 20 dB of full scale.',
    source: 'AES17; the number three is common practice, no source',
    steps: ['any'],
    better: 'lower',
  },
  integratedLoudness: {
    name: 'Integrated loudness',
    unit: 'LUFS',
    decimals: 1,
    definition:
      'K-weighted power over 400 ms blocks at 75 % overlap, gated at −70 LUFS and again 10 LU below the mean of what is left.',
    source: 'ITU-R BS.1770-5 Annex 1',
    steps: ['any'],
    better: null,
  },
  truePeak: {
    name: 'True peak',
    unit: 'dBTP',
    decimals: 1,
    definition: 'Largest magnitude of the 4 × oversampled signal, never less than the sample peak.',
    source: 'ITU-R BS.1770-5 Annex 2',
    steps: ['any'],
    better: null,
  },
  silenceRmsZ: {
    name: 'Level of the silent part, unweighted',
    unit: 'dBFS',
    decimals: 1,
    definition: 'RMS level of the longest pause, 20 Hz–20 kHz, as it is in the file; a full-scale sine reads 0 dBFS.',
    source: 'AES17; IEC 61672-1 Z',
    steps: ['any'],
    better: null,
  },
  silenceRmsA: {
    name: 'Level of the silent part, A-weighted',
    unit: 'dBFS(A)',
    decimals: 1,
    definition: 'As unweighted, each frequency weighted by the analytic A curve.',
    source: 'AES17; IEC 61672-1 Annex E',
    steps: ['any'],
    better: null,
  },
  noiseReSpeechZ: {
    name: 'Noise re speech, unweighted',
    unit: 'dB',
    decimals: 1,
    definition:
      'RMS level of the silent part, 20 Hz–20 kHz, after the gain that brings the speech to −23 LUFS; a full-scale sine reads 0 dB.',
    source: 'ITU-R BS.1770-5 for the speech, AES17 for the level; the figure itself is common practice, no source',
    steps: ['speech', 'silence'],
    better: 'lower',
  },
  noiseReSpeechA: {
    name: 'Noise re speech, A-weighted',
    unit: 'dB(A)',
    decimals: 1,
    definition: 'As unweighted, each frequency weighted by the analytic A curve.',
    source: 'ITU-R BS.1770-5, AES17, IEC 61672-1 Annex E; the figure itself is common practice, no source',
    steps: ['speech', 'silence'],
    better: 'lower',
  },
  rearRejection: {
    name: 'Rear rejection of speech',
    unit: 'dB',
    decimals: 1,
    definition:
      'Gated K-weighted level of the passage spoken at the front minus that at the back, at equal gain, the power of the noise taken off both.',
    source: 'ITU-R BS.1770-5 for weighting and gate; noise correction as in ISO 3745',
    steps: ['speech', 'rear', 'silence'],
    better: 'higher',
  },
} as const satisfies Record<string, QuantityDefinition>;

/** Name of a measurement, as it stands in the database, in exports and in JSON. */
export type QuantityId = keyof typeof QUANTITIES;

/** All names, in the order of the list. */
export const QUANTITY_IDS = Object.keys(QUANTITIES) as readonly QuantityId[];

/** The definition of one measurement, its optional parts typed alike. */
export const quantity = (id: QuantityId): QuantityDefinition => QUANTITIES[id];
