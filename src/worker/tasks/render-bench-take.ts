import { encodeWav } from '#core/audio/wav-write';
import type { BenchTake } from '#contracts/bench';
import { BENCH_INTERFACES, BENCH_MICROPHONES, BENCH_ROOMS, BENCH_TALKERS, partOf } from '#rig/bench-parts';
import { addFaults } from '#rig/faults';
import type { Room } from '#rig/room';
import { renderTake, type Voice } from '#rig/take';
import { loadVoice, ofRmsOne, playedSweep, shortened, toneOf, withoutTail } from '../voices';
import { whiteNoise } from '#rig/white-noise';
import { seededBits } from '#core/stats/random';

/** Order to a worker: play one take at the simulated bench. */
export interface RenderBenchTakeTask {
  readonly take: BenchTake;
  readonly speechFolder: string;
}

const SPEECH_DB_SPL = 80;
const LINE_S = 5;
const SILENCE_S = 8;
const AFTER_S = 1.2;
/** The voices are recorded at this rate; at another one they would be higher or lower. */
const VOICE_RATE = 48_000;

/** @returns the take as a 24-bit WAV file */
export default async function renderBenchTake({ take, speechFolder }: RenderBenchTakeTask): Promise<Uint8Array> {
  const room = partOf(BENCH_ROOMS, take.room);
  const rate = VOICE_RATE;
  const { voice, speechDbSpl } = await sceneOf(take, speechFolder, room);
  const turned = take.faults.includes('wrong-side') ? 180 : 0;
  const samples = renderTake({
    sampleRate: rate,
    durationS: voice ? voice.dry.length / rate + AFTER_S : SILENCE_S,
    voice,
    speechDbSpl,
    distanceM: take.distanceM ?? 0.15,
    angleDeg: (take.angleDeg ?? 0) + turned,
    microphone: partOf(BENCH_MICROPHONES, take.microphone),
    room,
    interface: partOf(BENCH_INTERFACES, take.interface),
    gainDb: take.gainDb,
    seed: take.seed,
  });
  addFaults(samples, take.faults, rate, take.seed);
  return encodeWav([samples], rate, 'pcm24');
}

async function sceneOf(
  take: BenchTake,
  folder: string,
  room: Room,
): Promise<{ voice: Voice | null; speechDbSpl: number }> {
  const talker = await loadVoice(folder, partOf(BENCH_TALKERS, take.talker), room);
  switch (take.playKind) {
    case 'silence':
      return { voice: null, speechDbSpl: SPEECH_DB_SPL };
    case 'sweep':
      return { voice: withoutTail(playedSweep(VOICE_RATE)), speechDbSpl: 84 };
    case 'tone':
      return { voice: withoutTail(toneOf(1000, 3, VOICE_RATE)), speechDbSpl: 94 };
    case 'noise':
      return {
        voice: withoutTail(ofRmsOne(whiteNoise(LINE_S * VOICE_RATE, seededBits(`${take.seed}/noise`)))),
        speechDbSpl: SPEECH_DB_SPL,
      };
    case 'text':
      return { voice: talker, speechDbSpl: SPEECH_DB_SPL };
    default:
      return { voice: shortened(talker, LINE_S * VOICE_RATE), speechDbSpl: SPEECH_DB_SPL };
  }
}
