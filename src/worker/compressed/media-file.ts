import {
  ADTS,
  FilePathSource,
  Input,
  MATROSKA,
  MP3,
  MP4,
  OGG,
  QTFF,
  UnsupportedInputFormatError,
  WEBM,
  type InputAudioTrack,
  type InputFormat,
} from 'mediabunny';
import type { ClipOrigin } from '#contracts/clip';
import { AudioFileError } from '#core/audio/audio-file-error';
import { HIGHEST_RATE, LOWEST_RATE, MOST_CHANNELS } from '#core/audio/audio-format';

/** What a compressed file or a film says of its sound. */
export interface MediaSound extends Pick<ClipOrigin, 'container' | 'codec' | 'bitRateKbps'> {
  readonly format: InputFormat;
  readonly track: InputAudioTrack;
  readonly sampleRate: number;
  readonly channels: number;
  readonly durationS: number;
}

const FORMATS = [MP4, QTFF, MATROSKA, WEBM, OGG, MP3, ADTS];

/** Packets that the bit rate is read from: a minute of most codecs. */
const BIT_RATE_PACKETS = 3_000;

/**
 * Opens a compressed file or a film, reads its sound track, and closes it whatever happens.
 *
 * @param path - of the file
 * @param use - what is done with the first sound track
 * @throws AudioFileError `not-audio` where no such format is known, `no-audio` for a film without sound, `malformed`
 */
export async function withMedia<T>(path: string, use: (sound: MediaSound) => Promise<T>): Promise<T> {
  const input = new Input({ source: new FilePathSource(path), formats: FORMATS });
  try {
    return await use(await soundOf(input));
  } catch (error) {
    if (error instanceof AudioFileError) throw error;
    if (error instanceof UnsupportedInputFormatError) throw notAudio();
    throw new AudioFileError(
      'malformed',
      'The file is damaged or ends too early: its sound cannot be read. Copy it again.',
    );
  } finally {
    input.dispose();
  }
}

async function soundOf(input: Input): Promise<MediaSound> {
  // What no reader of a format makes sense of, by whatever error it says so.
  if (!(await input.canRead().catch(() => false))) throw notAudio();
  const format = await input.getFormat();
  const track = await input.getPrimaryAudioTrack();
  const codec = (await track?.getCodec()) ?? null;
  if (!track || codec === null)
    throw new AudioFileError('no-audio', 'The file holds no sound track that is known here.');
  const [sampleRate, channels] = [await track.getSampleRate(), await track.getNumberOfChannels()];
  if (sampleRate < LOWEST_RATE || sampleRate > HIGHEST_RATE)
    throw new AudioFileError('unsupported-rate', `A sampling rate of ${sampleRate} Hz is not measured here.`);
  if (channels > MOST_CHANNELS)
    throw new AudioFileError('unsupported-channels', `${channels} channels are more than are measured here.`);
  const durationS = (await track.computeDuration()) - Math.max(0, await track.getFirstTimestamp());
  const { averageBitrate } = await track.computePacketStats(BIT_RATE_PACKETS);
  return {
    format,
    track,
    container: format.name,
    codec,
    bitRateKbps: Number.isFinite(averageBitrate) && averageBitrate > 0 ? Math.round(averageBitrate / 100) / 10 : null,
    sampleRate,
    channels,
    durationS,
  };
}

const notAudio = (): AudioFileError =>
  new AudioFileError(
    'not-audio',
    'This is no sound that is known here: WAV, FLAC, MP3, M4A, Ogg, Opus, or a film (MP4, MOV, WebM).',
  );
