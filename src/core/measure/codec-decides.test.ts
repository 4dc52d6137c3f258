import { expect, it } from 'vitest';
import { codecWords } from '../audio/codec';
import { memoryStream } from '../audio/memory-stream';
import { pickupRunFigures } from '../gear/microphone/run-figures';
import { lcgNoise, mixed, scaled, syllables } from '../testing/signals';
import { analysedTake } from '../testing/takes';
import { analyseClip } from './clip-analysis';
import { clipMeasurements } from './clip-measurements';
import { originalExtension, isSoundFile } from '../audio/sound-files';
import { codecReason, withCodecReason, withoutCodecFigures } from './codec-decides';
import { measured, notMeasured } from './measurement';

const MP3 = { codec: 'mp3', bitRateKbps: 127.6 };

it('takes the noise of pauses from compressed sound, and leaves its level', () => {
  const figures = [measured('silenceRmsA', -70, 'A-weighted'), measured('samplePeak', -9, 'whole clip')];
  const [noise, peak] = withoutCodecFigures(figures, MP3);
  expect(noise).toMatchObject({ value: null, condition: 'A-weighted' });
  expect(noise.notMeasured).toContain('MP3, 128 kbit/s');
  expect(peak.value).toBe(-9);
  expect(withoutCodecFigures(figures, { codec: 'pcm-s24', bitRateKbps: 1152 })).toEqual(figures);
  expect(withoutCodecFigures(figures, null)).toEqual(figures);
});

it('says of a chain that its sweep was compressed, where a figure is missing for it', () => {
  const reason = codecReason(MP3);
  const [missing, there] = withCodecReason([notMeasured('dynamicRange', '', 'No take of it.'), measured('selfNoise', 20, '')], reason); // prettier-ignore
  expect(missing.notMeasured).toMatch(/^No take of it\. The sound came through MP3/);
  expect(there.value).toBe(20);
  // Said once, whether something else was said before or not.
  const [alone, silent] = withCodecReason([notMeasured('dynamicRange', '', String(reason)), { ...missing, notMeasured: null }], reason); // prettier-ignore
  expect([alone.notMeasured, silent.notMeasured]).toEqual([reason, reason]);
});

it('calls codecs and files by their names', () => {
  expect(codecWords({ codec: 'aac', bitRateKbps: null })).toBe('AAC');
  expect(codecWords({ codec: 'pcm-s24be', bitRateKbps: 1152 })).toBe('PCM, 1152 kbit/s');
  expect(codecReason({ codec: 'alac', bitRateKbps: null })).toBeNull();
  expect(['a.WAV', 'b.m4a', 'c.mov', 'd.txt', 'e'].map(isSoundFile)).toEqual([true, true, true, false, false]);
  expect([originalExtension('x.MP3'), originalExtension('x.wav')]).toEqual(['mp3', 'original']);
});

it('keeps the noise of a compressed take out of the run, whichever of the two was compressed', async () => {
  const samples = mixed(syllables([[0.4, 3], [3.6, 6.8]], 8, -20, 48_000, 5), scaled(lcgNoise(8 * 48_000, 1, 1), -70)); // prettier-ignore
  const plain = await analysedTake('speech', samples);
  const quiet = await analysedTake('silence', scaled(lcgNoise(4 * 48_000, 1, 2), -70));
  const reopen = () => memoryStream([scaled(lcgNoise(4 * 48_000, 1, 2), -70)], 48_000);
  expect((await analyseClip(reopen(), { reopen })).lines).not.toBeNull();
  const packed = await analyseClip(reopen(), { sound: MP3, reopen });
  expect(packed.lines).toBeNull();
  expect(clipMeasurements(packed).find((m) => m.quantity === 'silenceRmsA')?.notMeasured).toContain('MP3, 128');
  const noise = (silence: typeof quiet) =>
    pickupRunFigures([plain, silence]).measurements.find((m) => m.quantity === 'noiseReSpeechA');
  expect(noise(quiet)?.value).not.toBeNull();
  expect(noise({ ...quiet, noise: packed.noise })?.notMeasured).toContain('MP3, 128 kbit/s');
});
