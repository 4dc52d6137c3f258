import { signal } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import type { BenchTake } from '#contracts/bench';
import type { Problem } from '#contracts/problem';
import type { NewSlotTake, SlotTake } from '#contracts/session-plan';
import type { Recorder } from '../../audio/recorder';
import { problemOf } from '../../data/api';
import type { SessionData } from '../../data/sessions';

/** idle → counting → saving (opening) → recording → saving (judging) → idle. */
export type Phase = 'idle' | 'counting' | 'recording' | 'saving';

export const COUNT_FROM = 3;
const COUNT_MS = 1000;

/** A take that is to be made. */
export interface TakeOrder {
  readonly slot: string;
  readonly step: string;
  /** What the simulated bench plays; null for a real input. */
  readonly bench: BenchTake | null;
  /** What it is noted with, asked when it is over: settings may be put right while it runs. */
  readonly noted: () => Pick<NewSlotTake, 'settings' | 'note'>;
}

type Input = Pick<Recorder, 'listening' | 'begin' | 'end' | 'prepareBench'>;
type Server = Pick<SessionData, 'startRecording' | 'finishRecording' | 'addTake'>;

/** Makes one take after another: counts in, records, and hands it in to be judged. It knows no screen. */
export class TakeMachine {
  readonly phase = signal<Phase>('idle');
  /** Seconds until it begins, while it counts in. */
  readonly count = signal(0);
  readonly problem = signal<Problem | null>(null);
  /** A take whose clip is safe, but which could not be handed in to be judged. */
  readonly unjudged = signal<{ readonly order: TakeOrder; readonly clip: string } | null>(null);
  private order: TakeOrder | null = null;
  private recording: string | null = null;
  private ticking: ReturnType<typeof setInterval> | null = null;

  /**
   * @param input - that listens
   * @param server - that keeps and judges
   * @param judged - told each take with its verdict
   */
  constructor(
    private readonly input: Input,
    private readonly server: Server,
    private readonly judged: (slot: string, take: SlotTake) => void,
  ) {}

  /** The recording that is under way, by the server's id. */
  current(): string | null {
    return this.recording;
  }

  /** Begins a take, at once or after counting in. Nothing happens while another one is made. */
  begin(order: TakeOrder, countsIn: boolean): void {
    if (this.phase() !== 'idle') return;
    this.problem.set(null);
    this.order = order;
    if (!countsIn) {
      void this.open();
      return;
    }
    this.phase.set('counting');
    this.count.set(COUNT_FROM);
    this.ticking = setInterval(() => {
      this.count.update((n) => n - 1);
      if (this.count() > 0) return;
      this.stopTicking();
      void this.open();
    }, COUNT_MS);
  }

  /** Ends the take that runs; stops counting where none runs yet. Resolves once it is judged, or refused. */
  async end(): Promise<void> {
    if (this.phase() === 'counting') {
      this.stopTicking();
      this.phase.set('idle');
    }
    const [order, recording] = [this.order, this.recording];
    if (this.phase() !== 'recording' || !order || recording === null) return;
    this.phase.set('saving');
    try {
      const { frames, refused } = await this.input.end();
      if (refused !== null) throw new Error(refused);
      const { clip } = await firstValueFrom(this.server.finishRecording(recording, frames));
      this.unjudged.set({ order, clip: clip.sha256 });
      await this.handIn();
    } catch (error) {
      this.problem.set(problemOf(error));
    }
    this.recording = null;
    this.phase.set('idle');
  }

  /** What a crash has left becomes a take. */
  async takeOver(order: TakeOrder, recording: string): Promise<void> {
    if (this.phase() !== 'idle') return;
    this.phase.set('saving');
    this.problem.set(null);
    try {
      const { clip } = await firstValueFrom(this.server.finishRecording(recording, null));
      this.unjudged.set({ order, clip: clip.sha256 });
      await this.handIn();
    } catch (error) {
      this.problem.set(problemOf(error));
    }
    this.phase.set('idle');
  }

  /** Hands a take in once more, where the server could not judge it. */
  async again(): Promise<void> {
    if (this.phase() !== 'idle' || this.unjudged() === null) return;
    this.phase.set('saving');
    this.problem.set(null);
    await this.handIn().catch((error: unknown) => this.problem.set(problemOf(error)));
    this.phase.set('idle');
  }

  private async handIn(): Promise<void> {
    const waiting = this.unjudged();
    if (!waiting) return;
    const { order, clip } = waiting;
    const { settings, note } = order.noted();
    const take = await firstValueFrom(this.server.addTake(order.slot, { step: order.step, clip, settings, note }));
    this.unjudged.set(null);
    this.judged(order.slot, take);
  }

  /** The page is left. What was recorded stays on the server, to be found by the next page. */
  leave(): void {
    this.stopTicking();
  }

  private async open(): Promise<void> {
    const [order, listening] = [this.order, this.input.listening()];
    if (!order || !listening) {
      this.phase.set('idle');
      return;
    }
    this.phase.set('saving');
    try {
      const play = order.bench ? await this.input.prepareBench(order.bench) : null;
      const { id } = await firstValueFrom(
        this.server.startRecording({
          slot: order.slot,
          step: order.step,
          sampleRateHz: listening.sampleRateHz,
          channels: listening.channels,
          device: listening.device.label,
          settings: listening.settings,
        }),
      );
      await this.input.begin(id);
      this.recording = id;
      this.phase.set('recording');
      // The bench has played to its end; a take that was stopped by hand meanwhile has gone, and with it its turn.
      if (play) void play().then(() => (this.recording === id ? this.end() : undefined));
    } catch (error) {
      this.recording = null;
      this.phase.set('idle');
      this.problem.set(problemOf(error));
    }
  }

  private stopTicking(): void {
    if (this.ticking !== null) clearInterval(this.ticking);
    this.ticking = null;
  }
}
