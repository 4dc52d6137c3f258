import { mapTime, turned, type TimeMap } from '#core/audio/phrase-alignment';

/** One clip that can be switched to. */
export interface PlayedLane {
  readonly buffer: AudioBuffer;
  /** Linear. */
  readonly gain: number;
  /** From the time that all lanes share to the time of this clip. */
  readonly map: TimeMap;
}

/** A part of the shared time that is played over and over. */
export interface Loop {
  readonly fromS: number;
  readonly toS: number;
}

/** Length of every fade, equal power. */
const FADE_S = 0.02;
/** So much ahead of the clock a change is scheduled: far enough to be met exactly, too near to be noticed. */
const LEAD_S = 0.008;
/** A loop's next turn is scheduled when its end is this near. */
const AHEAD_S = 0.3;
const TICK_MS = 60;
/** Nothing starts at full level. */
const START_S = 0.25;

/** A clip that sounds, from a moment of the clock on. */
interface Voice {
  readonly lane: number;
  readonly source: AudioBufferSourceNode;
  readonly out: GainNode;
  /** On the context's clock. */
  readonly startedAt: number;
  /** Where in the clip, in seconds. */
  readonly offsetS: number;
}

/**
 * Plays lanes one at a time and switches between them without a gap: the next clip starts at the very sample at which
 * the last one has arrived (by the lanes' time maps), under a crossfade of 20 ms with equal power. Takes any audio
 * context, also one that renders offline, so that what is heard can be tested.
 */
export class LanePlayer {
  private readonly volume: GainNode;
  private lanes: readonly PlayedLane[] = [];
  private current: Voice | null = null;
  /** Scheduled, but not begun yet: the next turn of a loop. */
  private pending: Voice | null = null;
  private loop: Loop | null = null;
  private active = 0;
  private restS = 0;
  private timer: ReturnType<typeof setInterval> | null = null;
  private endsAt = Infinity;

  /** @param context - whose clock and destination are used */
  constructor(private readonly context: BaseAudioContext) {
    this.volume = context.createGain();
    this.volume.connect(context.destination);
  }

  get isPlaying(): boolean {
    return this.current !== null;
  }

  get activeLane(): number {
    return this.active;
  }

  /** Length of the shared time: as far as every lane has something. */
  get lengthS(): number {
    const ends = this.lanes.map((lane) => mapTime(turned(lane.map), lane.buffer.duration));
    return ends.length === 0 ? 0 : Math.max(0, Math.min(...ends));
  }

  /** @param lanes - clips at the sample rate of the context; playing goes on where it was */
  setLanes(lanes: readonly PlayedLane[]): void {
    const [at, wasPlaying] = [this.positionS(), this.isPlaying];
    this.stopVoices();
    this.lanes = lanes;
    this.active = Math.min(this.active, Math.max(0, lanes.length - 1));
    this.restS = at;
    if (wasPlaying && lanes.length > 0) this.play();
  }

  /** @param decibels - 0 is the level of the clips; never above */
  setVolume(decibels: number): void {
    const value = decibels <= -60 ? 0 : Math.min(1, 10 ** (decibels / 20));
    this.volume.gain.setTargetAtTime(value, this.context.currentTime, 0.015);
  }

  setLoop(loop: Loop | null): void {
    const at = this.positionS();
    this.loop = loop;
    this.dropPending();
    if (loop && (at < loop.fromS || at >= loop.toS)) this.seek(loop.fromS);
    else if (this.current) this.schedule();
  }

  /** Starts from where it rests. @returns when it begins, on the context's clock */
  play(): number {
    if (this.lanes.length === 0) return this.context.currentTime;
    const when = this.nextMoment();
    const at = this.loop ? clampTo(this.restS, this.loop) : this.restS >= this.lengthS - 0.05 ? 0 : this.restS;
    this.current = this.start(this.active, at, when, START_S);
    this.schedule();
    this.timer ??= setInterval(() => this.tick(), TICK_MS);
    return when;
  }

  pause(): void {
    this.restS = this.positionS();
    this.stopVoices();
  }

  /** @param atS - of the shared time */
  seek(atS: number): void {
    this.restS = Math.min(Math.max(0, atS), this.lengthS);
    if (!this.current) return;
    const when = this.nextMoment();
    this.dropPending();
    this.fadeOut(this.current, when);
    this.current = this.start(this.active, this.restS, when, FADE_S);
    this.schedule();
  }

  /**
   * Goes on with another lane at the same moment of the text.
   *
   * @returns when the other one begins, on the context's clock
   */
  switchTo(lane: number): number {
    if (lane < 0 || lane >= this.lanes.length) return this.context.currentTime;
    const when = this.nextMoment();
    const before = this.settled();
    if (!before || lane === this.active) {
      this.active = lane;
      return when;
    }
    const at = this.sharedTime(before, when);
    this.active = lane;
    this.dropPending();
    this.fadeOut(before, when);
    this.current = this.start(lane, at, when, FADE_S);
    this.schedule();
    return when;
  }

  /** Seconds of the shared time that are heard now. */
  positionS(): number {
    const voice = this.settled();
    return voice ? this.sharedTime(voice, this.context.currentTime) : this.restS;
  }

  close(): void {
    this.stopVoices();
    this.volume.disconnect();
  }

  /** The voice of this moment: a pending one becomes current when its time has come. */
  private settled(): Voice | null {
    if (this.pending && this.context.currentTime >= this.pending.startedAt) {
      this.current = this.pending;
      this.pending = null;
    }
    return this.current;
  }

  private tick(): void {
    const voice = this.settled();
    if (!voice) return;
    if (this.loop) {
      if (!this.pending) this.schedule();
    } else if (this.context.currentTime >= this.endsAt) {
      this.restS = 0;
      this.stopVoices();
    }
  }

  /** Plans what comes at the end: the next turn of the loop, or silence. */
  private schedule(): void {
    const voice = this.current;
    if (!voice) return;
    const endS = this.loop ? Math.min(this.loop.toS, this.lengthS) : this.lengthS;
    const lane = this.lanes[voice.lane];
    const leftS = mapTime(lane.map, endS) - voice.offsetS;
    this.endsAt = voice.startedAt + leftS;
    if (!this.loop || this.endsAt - this.context.currentTime > AHEAD_S) return;
    const when = this.onGrid(Math.max(this.endsAt - FADE_S, this.context.currentTime + LEAD_S));
    this.fadeOut(voice, when);
    this.pending = this.start(voice.lane, this.loop.fromS, when, FADE_S);
  }

  private start(index: number, sharedS: number, when: number, fadeS: number): Voice {
    const lane = this.lanes[index];
    const { sampleRate } = this.context;
    const source = this.context.createBufferSource();
    source.buffer = lane.buffer;
    const level = this.context.createGain();
    level.gain.value = lane.gain;
    const fadeIn = this.context.createGain();
    const out = this.context.createGain();
    // Whole samples, so that lanes of one performance stay together to the sample.
    const offsetS = Math.round(Math.max(0, mapTime(lane.map, sharedS)) * sampleRate) / sampleRate;
    fadeIn.gain.setValueAtTime(0, 0);
    fadeIn.gain.setValueCurveAtTime(CURVE_IN, when, fadeS);
    source.connect(level).connect(fadeIn).connect(out).connect(this.volume);
    source.start(when, offsetS);
    return { lane: index, source, out, startedAt: when, offsetS };
  }

  private fadeOut(voice: Voice, when: number): void {
    // A voice that was asked to end already, by the end of a loop, ends sooner.
    voice.out.gain.cancelScheduledValues(0);
    voice.out.gain.setValueAtTime(1, 0);
    voice.out.gain.setValueCurveAtTime(CURVE_OUT, when, FADE_S);
    voice.source.stop(when + FADE_S + 0.005);
  }

  private stopVoices(): void {
    const now = this.context.currentTime;
    for (const voice of [this.current, this.pending]) if (voice) this.fadeOut(voice, now);
    this.current = null;
    this.pending = null;
    this.endsAt = Infinity;
    if (this.timer !== null) clearInterval(this.timer);
    this.timer = null;
  }

  private dropPending(): void {
    if (!this.pending) return;
    this.pending.out.gain.cancelScheduledValues(0);
    this.pending.out.gain.setValueAtTime(0, 0);
    this.pending.source.stop();
    this.pending = null;
    // The current one was to fade under it.
    if (this.current) {
      this.current.out.gain.cancelScheduledValues(0);
      this.current.out.gain.setValueAtTime(1, 0);
    }
  }

  private sharedTime(voice: Voice, at: number): number {
    const lane = this.lanes[voice.lane];
    return mapTime(turned(lane.map), voice.offsetS + Math.max(0, at - voice.startedAt));
  }

  private nextMoment(): number {
    return this.onGrid(this.context.currentTime + LEAD_S);
  }

  private onGrid(at: number): number {
    return Math.ceil(at * this.context.sampleRate) / this.context.sampleRate;
  }
}

const clampTo = (at: number, { fromS, toS }: Loop): number => (at < fromS || at >= toS ? fromS : at);

const POINTS = 64;
const CURVE_IN = Float32Array.from({ length: POINTS }, (_, i) => Math.sin((Math.PI / 2) * (i / (POINTS - 1))));
const CURVE_OUT = CURVE_IN.slice().reverse();
