import type { AudioFormat } from '../audio/audio-format';
import type { ClipAnalysis } from './clip-analysis';
import { noiseReSpeech } from './noise-re-speech';

const finiteOrNull = (value: number): number | null => (Number.isFinite(value) ? value : null);

/** Format as reported in JSON. */
export function formatSummary(format: AudioFormat): {
  container: AudioFormat['container'];
  encoding: string;
  sampleRateHz: number;
  channels: number;
  durationS: number;
} {
  return {
    container: format.container,
    encoding: format.encoding,
    sampleRateHz: format.sampleRate,
    channels: format.channels,
    durationS: format.frames / format.sampleRate,
  };
}

/**
 * The analysis of a clip in the shape of `sediment analyze --json`: plain numbers, null for what could not be measured.
 * Noise re speech takes both from this clip, and so is null without speech or without a pause.
 */
export function clipSummary(analysis: ClipAnalysis) {
  const { level, loudness, segments, noise } = analysis;
  const hasSpeech = segments.speech.length > 0;
  const [z, a] = noiseReSpeech({ loudness, gainDb: 0 }, { noise, gainDb: 0 });
  return {
    format: formatSummary(analysis.format),
    level: {
      peakDbfs: finiteOrNull(level.peakDbfs),
      rmsDbfs: finiteOrNull(level.rmsDbfs),
      crestDb: finiteOrNull(level.crestDb),
      dcOffset: level.dcOffset,
      clippedRuns: level.clippedRuns,
    },
    loudness: {
      integratedLufs: finiteOrNull(loudness.integratedLufs),
      truePeakDbtp: finiteOrNull(loudness.truePeakDbtp),
    },
    noise: {
      speech: [...segments.speech],
      silence: [...segments.silence],
      silenceRmsDbfs: {
        z: noise ? finiteOrNull(noise.z.levelDbfs) : null,
        a: noise ? finiteOrNull(noise.a.levelDbfs) : null,
      },
      reSpeechDb: { z: hasSpeech ? z.value : null, a: hasSpeech ? a.value : null },
      thirdOctave: noise ? [...noise.thirdOctave] : [],
    },
    thirdOctave: [...analysis.thirdOctave],
  };
}
