import type { QuantityDefinition } from './quantity-definition';

/** Noise, hum and interference. */
export const NOISE_QUANTITIES = {
  silenceRmsZ: {
    name: 'Level of the silent part, unweighted',
    unit: 'dBFS',
    decimals: 1,
    definition:
      'RMS level of the pauses, 20 Hz–20 kHz or as far as the sample rate reaches, as it is in the file, what stands out of them left out; a full-scale sine reads 0 dBFS.',
    source: 'AES17; IEC 61672-1 Z; which pauses count is common practice, no source',
    group: 'recording',
    steps: ['any'],
    better: null,
  },
  silenceRmsA: {
    name: 'Level of the silent part, A-weighted',
    unit: 'dBFS(A)',
    decimals: 1,
    definition: 'As unweighted, each frequency weighted by the analytic A curve.',
    source: 'AES17; IEC 61672-1 Annex E',
    group: 'recording',
    steps: ['any'],
    better: null,
  },
  silenceItu468: {
    name: 'Quasi-peak noise, 468',
    unit: 'dBFS',
    decimals: 1,
    definition:
      'Quasi-peak reading of the longest undisturbed stretch of a pause through the ITU-R 468 weighting network; a full-scale sine of 1 kHz reads 0.',
    source: 'ITU-R BS.468-4',
    group: 'recording',
    steps: ['any'],
    better: 'lower',
  },
  hum: {
    name: 'Hum',
    unit: 'dBFS',
    decimals: 1,
    definition:
      'Sum of the lines at 50 Hz or 60 Hz and harmonics to the 15th in the longest undisturbed stretch of a pause, each above its local floor; the data decide which mains it is.',
    source: 'Welch periodogram; the decision is common practice, no source',
    group: 'noise',
    steps: ['silence'],
    better: 'lower',
  },
  interference: {
    name: 'Interference',
    unit: 'dBFS',
    decimals: 1,
    definition:
      'Sum of all other lines at 20 Hz–20 kHz in the longest undisturbed stretch of a pause; lines 1 kHz apart are told as bus whine, lines 217 Hz apart as radio bursts.',
    source: 'Welch periodogram; the families are common practice, no source',
    group: 'noise',
    steps: ['silence'],
    better: 'lower',
  },
  noiseReSpeechZ: {
    name: 'Noise re speech, unweighted',
    unit: 'dB',
    decimals: 1,
    definition:
      'RMS level of the silent part, 20 Hz–20 kHz or as far as the sample rate reaches, after the gain that brings the speech without it to −23 LUFS; a full-scale sine reads 0 dB.',
    source: 'ITU-R BS.1770-5 for the speech, AES17 for the level; the figure itself is common practice, no source',
    group: 'noise',
    steps: ['speech', 'silence'],
    better: 'lower',
  },
  noiseReSpeechA: {
    name: 'Noise re speech, A-weighted',
    unit: 'dB(A)',
    decimals: 1,
    definition: 'As unweighted, each frequency weighted by the analytic A curve.',
    source: 'ITU-R BS.1770-5, AES17, IEC 61672-1 Annex E; the figure itself is common practice, no source',
    group: 'noise',
    steps: ['speech', 'silence'],
    better: 'lower',
  },
  selfNoise: {
    name: 'Equivalent noise level',
    unit: 'dB SPL(A)',
    decimals: 1,
    definition:
      'A-weighted level of the silent take as the sound pressure level that would read the same, by a calibration take or by sensitivity, gain and input level; room and preamp are in it, so it is an upper limit to the self-noise.',
    source: 'IEC 60268-4 for the quantity; IEC 61672-1 Annex E',
    group: 'noise',
    steps: ['silence'],
    better: 'lower',
  },
  einZ: {
    name: 'Equivalent input noise, unweighted',
    unit: 'dBu',
    decimals: 1,
    definition:
      'RMS level of the noise of an input terminated with 150 Ω, 20 Hz–20 kHz or as far as the sample rate reaches, as the level at the input that would read the same, by a tone of known level.',
    source: 'IEC 60268-3 for the quantity, from memory; AES17 for the level',
    group: 'noise',
    steps: ['level-tone', 'terminated'],
    better: 'lower',
  },
  einA: {
    name: 'Equivalent input noise, A-weighted',
    unit: 'dBu(A)',
    decimals: 1,
    definition: 'As unweighted, each frequency weighted by the analytic A curve.',
    source: 'IEC 60268-3 for the quantity, from memory; IEC 61672-1 Annex E',
    group: 'noise',
    steps: ['level-tone', 'terminated'],
    better: 'lower',
  },
  noiseFigure: {
    name: 'Noise figure re 150 Ω',
    unit: 'dB',
    decimals: 1,
    definition:
      'Equivalent input noise, unweighted, re the thermal noise of 150 Ω at 20 °C in the same band (−130.9 dBu over 20 Hz–20 kHz).',
    source: 'Johnson–Nyquist, with the Boltzmann constant of CODATA 2018',
    group: 'noise',
    steps: ['level-tone', 'terminated'],
    better: 'lower',
  },
} as const satisfies Record<string, QuantityDefinition>;
