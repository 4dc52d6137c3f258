import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { exponentialSweep } from '#core/dsp/exponential-sweep';
import { encodeWav } from '#core/audio/wav-write';
import { standardNormal } from '#core/stats/normal';
import { seededBits } from '#core/stats/random';
import { renderSeating } from '#rig/headphones';
import { renderLineInput } from '#rig/line-input';
import { NET_LOFT, PADDED_CRATE } from '#rig/room';
import { renderTake, type TakeSetup, type Voice } from '#rig/take';
import { DEMO_VOICES, type DemoRunPlan, type DemoVoice } from '../../../demo/demo-run';
import { addGate } from '#rig/gate';
import { lineScene } from '../line-scenes';
import { addLinkHoles, PACE_MS } from '#rig/radio-link';
import type { RunDocumentInput } from '#contracts/run-document';
import { loadVoice, playedSweep, repeated, shortened, toneOf, withoutTail } from '../voices';

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
const SWEEP_DB_SPL = 84;
const READER_SD_DB = 0.6;
const AFTER_SPEECH_S = 1.4;
const GATE_CLOSES_S = 2;

/** The counting line and the plosives are the beginning of the passage. */
const SHORT_S = 5;
/** Moments of the puffs in the plosive take. */
const PUFFS_S = [0.9, 1.7, 2.6, 3.4, 4.2];
const CALIBRATION_S = 3;
/** Straight along the quay, to its end. */
const WALK_M = 60;

export default async function renderDemoRun({ plan, into, speechFolder }: RenderDemoRunTask): Promise<void> {
  mkdirSync(into, { recursive: true });
  const { specimen, date } = plan.document;
  const { maker, model, label } = specimen;
  for (const take of plan.document.takes) {
    // The closing takes of a day are other takes than its opening ones.
    const closing = plan.document.purpose === 'closing' ? ['closing'] : [];
    // Further readings of the passage are other takes than the first.
    const ofFile = take.step === 'speech' && take.file !== 'speech.wav' ? [take.file] : [];
    const seed = [maker, model, label, date, take.step, ...closing, ...ofFile].join('/');
    const line =
      plan.document.protocol === 'input-stage' &&
      lineScene(take, gainOf(take), plan.interface, plan.sweep ?? null, SAMPLE_RATE);
    if (line) {
      const channels = renderLineInput({ sampleRate: SAMPLE_RATE, ...line, gainDb: gainOf(take), interface: plan.interface, seed }); // prettier-ignore
      writeFileSync(join(into, take.file), encodeWav(channels, SAMPLE_RATE, 'pcm24'));
      continue;
    }
    if (plan.headphones && plan.sweep && take.step.startsWith('sweep-')) {
      const samples = renderSeating({
        sampleRate: SAMPLE_RATE,
        durationS: plan.sweep.seconds + AFTER_SPEECH_S,
        side: take.step === 'sweep-right' ? 'right' : 'left',
        headphones: plan.headphones,
        played: exponentialSweep(plan.sweep, SAMPLE_RATE, plan.sweep.levelDbfs),
        seed: `${seed}/${take.file}`,
      });
      writeFileSync(join(into, take.file), encodeWav([samples], SAMPLE_RATE, 'pcm24'));
      continue;
    }
    const speaker = await loadVoice(speechFolder, voiceOf(take, plan), NET_LOFT);
    const heard = sceneOf(take.step, speaker, seed);
    // A gate takes its time to close: it is heard where the recording goes on for a while.
    const scene = plan.gate ? { ...heard, durationS: heard.durationS + GATE_CLOSES_S } : heard;
    const setup: TakeSetup = {
      sampleRate: SAMPLE_RATE,
      distanceM: take.distanceM ?? 0.15,
      angleDeg: take.angleDeg ?? 0,
      microphone: isWith(take.step) ? (plan.with ?? plan.microphone) : plan.microphone,
      ...(plan.booster && isWith(take.step) ? { booster: plan.booster } : {}),
      interface: plan.interface,
      gainDb: gainOf(take),
      seed,
      ...scene,
      ...outsideOf(take.step, plan),
      ...fieldScene(take, plan),
    };
    const samples = renderTake(setup);
    if (take.step === 'range' && plan.link) addLinkHoles(samples, SAMPLE_RATE, plan.link, seed);
    if (plan.gate) addGate(samples, SAMPLE_RATE, plan.gate);
    writeFileSync(join(into, take.file), encodeWav([samples], SAMPLE_RATE, 'pcm24'));
  }
  writeFileSync(join(into, 'run.json'), JSON.stringify(plan.document, null, 2));
}

/** Who reads a take: the one that it names, else the reader of those years. */
const voiceOf = (take: RunDocumentInput['takes'][number], { voice }: DemoRunPlan): DemoVoice =>
  DEMO_VOICES.find((v) => v === take.settings?.['voice']) ?? voice;

/** The simulated interface is turned by decibels, whatever the document notes of its dial. */
const gainOf = ({ gainDb }: { gainDb?: number | null | undefined }): number => gainDb ?? USUAL_GAIN_DB;
const USUAL_GAIN_DB = 40;

/** Steps that are made with the part: "with", "silence-with", "sweep-with" … */
const isWith = (step: string): boolean => step === 'with' || step.endsWith('-with');

/** A loudspeaker plays a street at 70 dB in the next room. */
const OUTSIDE_DB_SPL = 70;
const outsideOf = (step: string, { shield }: DemoRunPlan): Pick<TakeSetup, 'outside'> =>
  step.startsWith('noise-') ? { outside: { dbSpl: OUTSIDE_DB_SPL, ...(isWith(step) ? shield : {}) } } : {};

/** Wind and cloth beside the voice. A windscreen takes most of the wind away. */
function fieldScene(
  take: RunDocumentInput['takes'][number],
  { rubDb = -12 }: DemoRunPlan,
): Pick<TakeSetup, 'wind' | 'rubDb'> {
  if (take.step === 'clothing') return { rubDb };
  if (!take.step.startsWith('wind')) return {};
  // Pressure goes by the square of the speed, and so does what a screen leaves of it.
  const screen = take.step.endsWith('-shield') ? SCREEN_LEAVES : 1;
  return { wind: ((take.windSpeedMs ?? 7) / 7) * screen };
}
/** 18 dB less. */
const SCREEN_LEAVES = 10 ** (-18 / 40);

const PASSAGES = ['speech', 'rear', 'with', 'without'];

type Scene = Pick<TakeSetup, 'durationS' | 'voice' | 'speechDbSpl' | 'room' | 'puffsS'>;

/** What is heard at a step, and where. */
function sceneOf(step: string, speaker: Voice, seed: string): Scene {
  if (step.startsWith('silence') || step.startsWith('noise-'))
    return { durationS: SILENCE_S, voice: null, speechDbSpl: SPEECH_DB_SPL, room: NET_LOFT };
  if (step === 'calibration' || step.startsWith('sweep')) {
    const dry = step === 'calibration' ? calibratorTone : sweepTone;
    const durationS = dry.length / SAMPLE_RATE + AFTER_SPEECH_S;
    return {
      durationS,
      voice: withoutTail(dry),
      speechDbSpl: step === 'calibration' ? 94 : SWEEP_DB_SPL,
      room: PADDED_CRATE,
    };
  }
  if (step === 'range') {
    const voice = repeated(speaker, Math.round((WALK_M / PACE_MS) * SAMPLE_RATE));
    return { durationS: WALK_M / PACE_MS, voice, speechDbSpl: SPEECH_DB_SPL, room: NET_LOFT };
  }
  // Nobody reads a passage twice at exactly the same level; a counting line is easier to keep.
  const isPassage = PASSAGES.includes(step);
  const spread = (isPassage ? 1 : 0.3) * READER_SD_DB;
  const speechDbSpl = SPEECH_DB_SPL + spread * standardNormal(seededBits(`${seed}/reader`));
  const voice = isPassage ? speaker : shortened(speaker, SHORT_S * SAMPLE_RATE);
  return {
    durationS: voice.dry.length / SAMPLE_RATE + AFTER_SPEECH_S,
    voice,
    speechDbSpl,
    room: NET_LOFT,
    ...(step.startsWith('plosive') ? { puffsS: PUFFS_S } : {}),
  };
}

const calibratorTone = toneOf(1000, CALIBRATION_S, SAMPLE_RATE);
const sweepTone = playedSweep(SAMPLE_RATE);
