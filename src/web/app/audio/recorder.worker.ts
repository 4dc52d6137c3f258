import { expose } from 'comlink';
import { LiveMeter, type LiveLevels } from '#core/measure/live-meter';
import { sendChunk } from './chunk-sender';
import { Outbox, type Chunk } from './outbox';
import { TakeWriter } from './take-writer';

/** What the page is told while it listens. */
export interface RecorderNews {
  readonly levels: LiveLevels;
  /** Frames recorded so far; 0 while only listening. */
  readonly frames: number;
  /** Chunks that wait for the server. */
  readonly waiting: number;
}

const NEWS_EVERY_MS = 50;
const RETRY_MS = 700;
/** While nothing is recorded the meter starts anew now and then, so that it does not grow. */
const IDLE_METER_S = 60;

/** Metering and recording off the page's thread: samples come straight from the audio thread. */
class RecorderWorker {
  private readonly outbox = new Outbox();
  private queue: Chunk[] = [];
  private isSending = false;
  private meter: LiveMeter | null = null;
  private writer: TakeWriter | null = null;
  private sampleRate = 48_000;
  private channels = 1;
  private tell: ((news: RecorderNews) => void) | null = null;
  private toldAt = 0;
  private refused: string | null = null;

  /** Takes up the end of a port that an audio worklet writes to. */
  listen(port: MessagePort, sampleRate: number, channels: number, tell: (news: RecorderNews) => void): void {
    this.sampleRate = sampleRate;
    this.channels = channels;
    this.tell = tell;
    this.meter = new LiveMeter(sampleRate, channels);
    port.onmessage = ({ data }: MessageEvent<Float32Array[]>) => this.take(data);
  }

  /** From the next block on, everything goes to this recording. */
  begin(recording: string): void {
    this.refused = null;
    this.meter = new LiveMeter(this.sampleRate, this.channels);
    this.writer = new TakeWriter(recording, this.sampleRate);
  }

  /** Ends a recording; resolves with its length once every chunk of it has arrived. */
  async end(): Promise<{ frames: number; levels: LiveLevels | null; refused: string | null }> {
    const { writer } = this;
    this.writer = null;
    if (!writer) return { frames: 0, levels: null, refused: 'Nothing was being recorded.' };
    const last = writer.flush();
    if (last) this.post(last);
    const levels = this.meter?.finish() ?? null;
    this.meter = new LiveMeter(this.sampleRate, this.channels);
    await this.empty();
    return { frames: writer.frames, levels, refused: this.refused };
  }

  /** Sends what an earlier page could not; tells for which recordings. */
  async resume(): Promise<string[]> {
    const left = await this.outbox.waiting();
    this.queue.push(...left);
    void this.send();
    await this.empty();
    return [...new Set(left.map((c) => c.recording))];
  }

  private take(block: Float32Array[]): void {
    // A device may give more channels than were asked for, or fewer.
    const used = Array.from({ length: this.channels }, (_, c) => block[c] ?? block[0]);
    this.meter?.push(used);
    if (this.writer) {
      const chunk = this.writer.push(used);
      if (chunk) this.post(chunk);
    }
    const now = performance.now();
    if (now - this.toldAt < NEWS_EVERY_MS || !this.meter) return;
    this.toldAt = now;
    const levels = this.meter.read();
    this.tell?.({ levels, frames: this.writer?.frames ?? 0, waiting: this.queue.length });
    if (!this.writer && levels.frames > IDLE_METER_S * this.sampleRate)
      this.meter = new LiveMeter(this.sampleRate, this.channels);
  }

  private post(chunk: Chunk): void {
    this.queue.push(chunk);
    void this.outbox.keep(chunk).then(() => this.send());
  }

  /** One after another; an unreachable server is tried again until it answers. */
  private async send(): Promise<void> {
    if (this.isSending) return;
    this.isSending = true;
    for (let chunk = this.queue.at(0); chunk; chunk = this.queue.at(0)) {
      const delivery = await sendChunk(chunk);
      if (delivery === 'unreachable') {
        await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
        continue;
      }
      if (delivery === 'refused') this.refused = 'The server does not know this recording any more.';
      await this.outbox.sent(chunk);
      this.queue.shift();
    }
    this.isSending = false;
  }

  private async empty(): Promise<void> {
    while (this.queue.length > 0) await new Promise((resolve) => setTimeout(resolve, 20));
  }
}

export type { RecorderWorker };
expose(new RecorderWorker());
