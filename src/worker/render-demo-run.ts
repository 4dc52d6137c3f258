import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { allocateBlock } from '#core/audio/sample-stream';
import { encodeWav } from '#core/audio/wav-write';
import { standardNormal } from '#core/stats/normal';
import { seededBits } from '#core/stats/random';
import { diffuseTail, NET_LOFT } from '#rig/room';
import { renderTake, type TakeSetup, type Voice } from '#rig/take';
import type { DemoRunPlan } from '../../demo/run-plan';
import { openClip } from './open-clip';

/** Order to a worker: play one run of the demo through the rig and write it as a run folder. */
export interface RenderDemoRunTask {
  readonly plan: DemoRunPlan;
  /** Folder that is made. */
  readonly into: string;
  readonly speechFolder: string;
}

const SAMPLE_RATE = 48_000;
const SILENCE_S = 8;
const SPEECH_DB_SPL = 80;
const READER_SD_DB = 0.6;
const AFTER_SPEECH_S = 1.4;

const voices = new Map<string, Promise<Voice>>();

export default async function renderDemoRun({ plan, into, speechFolder }: RenderDemoRunTask): Promise<void> {
  const path = join(speechFolder, `${plan.voice}.flac`);
  let voice = voices.get(path);
  if (!voice) voices.set(path, (voice = loadVoice(path)));
  const speaker = await voice;
  mkdirSync(into, { recursive: true });
  const { specimen, date } = plan.document;
  const { maker, model, label } = specimen;
  for (const take of plan.document.takes) {
    const isSpoken = take.step !== 'silence';
    const seed = [maker, model, label, date, take.step].join('/');
    const setup: TakeSetup = {
      sampleRate: SAMPLE_RATE,
      durationS: isSpoken ? speaker.dry.length / SAMPLE_RATE + AFTER_SPEECH_S : SILENCE_S,
      voice: isSpoken ? speaker : null,
      // Nobody reads a passage twice at exactly the same level.
      speechDbSpl: SPEECH_DB_SPL + READER_SD_DB * standardNormal(seededBits(`${seed}/reader`)),
      distanceM: take.distanceM ?? 0.15,
      angleDeg: take.angleDeg ?? 0,
      microphone: plan.microphone,
      room: NET_LOFT,
      interface: plan.interface,
      gainDb: take.gainDb,
      seed,
    };
    writeFileSync(join(into, take.file), encodeWav([renderTake(setup)], SAMPLE_RATE, 'pcm24'));
  }
  writeFileSync(join(into, 'run.json'), JSON.stringify(plan.document, null, 2));
}

/** Reads a dry voice, brings its RMS to 1, and adds the room's tail. */
async function loadVoice(path: string): Promise<Voice> {
  const stream = await openClip(path);
  try {
    const dry = new Float64Array(stream.format.frames);
    const block = allocateBlock(1);
    for (let at = 0; ;) {
      const count = await stream.read(block);
      if (count === 0) break;
      dry.set(block[0].subarray(0, count), at);
      at += count;
    }
    const rms = Math.sqrt(dry.reduce((s, x) => s + x * x, 0) / dry.length);
    for (let i = 0; i < dry.length; i++) dry[i] /= rms;
    return { dry, tail: diffuseTail(dry, stream.format.sampleRate, NET_LOFT.t60, 'net-loft') };
  } finally {
    stream.close();
  }
}
