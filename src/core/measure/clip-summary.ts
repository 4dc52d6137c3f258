import type { AudioFormat } from '../audio/audio-format';
import { amplitudeToDb } from '../units';
import type { ClipAnalysis } from './clip-analysis';
import { clipMeasurements } from './clip-measurements';
import type { LineFamily } from './interference';
import type { LevelFigures } from './level';
import { partLoudness, type PartLoudness } from './loudness';
import { noiseReSpeech } from './noise-re-speech';
import { ALGORITHM_VERSION, quantity } from './registry';
import type { SilenceLines } from './silence-lines';
import type { Segment } from './speech-segments';
import type { TonalLine } from './tonal-lines';

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
export function clipSummary(analysis: ClipAnalysis, part: Segment | null = null) {
  const { level, loudness, segments, noise, lines } = analysis;
  const hasSpeech = segments.speech.length > 0;
  const [z, a] = noiseReSpeech({ loudness, stepPowers: analysis.stepPowers, gainDb: 0 }, { noise, gainDb: 0 });
  return {
    format: formatSummary(analysis.format),
    algorithmVersion: ALGORITHM_VERSION,
    level: levelSummary(level),
    channels: analysis.channels.map((channel) => ({
      ...levelSummary(channel),
      truePeakDbtp: finiteOrNull(amplitudeToDb(channel.truePeak)),
    })),
    loudness: {
      integratedLufs: finiteOrNull(loudness.integratedLufs),
      maxMomentaryLufs: finiteOrNull(loudness.maxMomentaryLufs),
      maxShortTermLufs: finiteOrNull(loudness.maxShortTermLufs),
      loudnessRangeLu: loudness.loudnessRangeLu,
      truePeakDbtp: finiteOrNull(loudness.truePeakDbtp),
      ...(part ? { part: partSummary(partLoudness(analysis.framePowers, part)) } : {}),
    },
    noise: {
      speech: [...segments.speech],
      silence: [...segments.silence],
      events: [...segments.events],
      silenceRmsDbfs: {
        z: noise ? finiteOrNull(noise.z.levelDbfs) : null,
        a: noise ? finiteOrNull(noise.a.levelDbfs) : null,
      },
      findings: noise ? noise.findings.map((f) => ({ ...f })) : [],
      itu468Dbfs: lines ? finiteOrNull(lines.itu468Dbfs) : null,
      reSpeechDb: { z: hasSpeech ? z.value : null, a: hasSpeech ? a.value : null },
      thirdOctave: noise ? [...noise.thirdOctave] : [],
    },
    hum: lines && humSummary(lines),
    interference: lines && interferenceSummary(lines),
    plosives: analysis.plosives.map(({ atS, peakDbfs }) => ({ atS, peakDbfs })),
    sibilanceDb: analysis.sibilance.value,
    dropOuts: { count: analysis.dropOuts.count, listed: [...analysis.dropOuts.listed] },
    thirdOctave: [...analysis.thirdOctave],
    measurements: Object.fromEntries(
      clipMeasurements(analysis).map(({ quantity: id, ...figure }) => [id, { ...figure, unit: quantity(id).unit }]),
    ),
  };
}

const levelSummary = (level: LevelFigures) => ({
  peakDbfs: finiteOrNull(level.peakDbfs),
  rmsDbfs: finiteOrNull(level.rmsDbfs),
  crestDb: finiteOrNull(level.crestDb),
  dcOffset: level.dcOffset,
  clippedRuns: level.clippedRuns,
});

const partSummary = (part: PartLoudness) => ({
  startS: part.startS,
  endS: part.endS,
  integratedLufs: finiteOrNull(part.integratedLufs),
  maxMomentaryLufs: finiteOrNull(part.maxMomentaryLufs),
  maxShortTermLufs: finiteOrNull(part.maxShortTermLufs),
  loudnessRangeLu: part.loudnessRangeLu,
});

const lineSummary = ({ hz, levelDbfs, aboveFloorDb }: TonalLine) => ({ hz, levelDbfs, aboveFloorDb });

const humSummary = ({ hum }: SilenceLines) => ({
  mainsHz: hum.mainsHz,
  totalDbfs: hum.totalDbfs,
  limitDbfs: finiteOrNull(hum.limitDbfs),
  lines: hum.lines.map(lineSummary),
});

const familySummary = (family: LineFamily | null) =>
  family && { spacingHz: family.spacingHz, totalDbfs: family.totalDbfs, linesHz: family.lines.map((l) => l.hz) };

const interferenceSummary = ({ interference, limitDbfs }: SilenceLines) => ({
  totalDbfs: interference.totalDbfs,
  limitDbfs: finiteOrNull(limitDbfs),
  busWhine: familySummary(interference.busWhine),
  radioBursts: familySummary(interference.radioBursts),
  lines: interference.lines.map(lineSummary),
});
