import { Injectable, signal } from '@angular/core';
import { proxy, transfer, wrap, type Remote } from 'comlink';
import type { LiveLevels } from '#core/measure/live-meter';
import { PLAIN_PATHS } from '#contracts/http';
import type { BenchTake } from '#contracts/bench';
import type { RecorderNews, RecorderWorker } from './recorder.worker';

/** Where sound comes from. */
export interface InputDevice {
  readonly id: string;
  readonly label: string;
}
/** Stands in for a real input. */
export const SIMULATED_BENCH: InputDevice = { id: 'simulated-bench', label: 'Simulated bench' };

/** A device that listens: what it is and how it was set, as the browser reports it. */
export interface Listening {
  readonly device: InputDevice;
  readonly sampleRateHz: number;
  readonly channels: number;
  readonly settings: Readonly<Record<string, string | number | boolean>>;
  /** What the browser does to the sound in spite of what was asked, in sentences. */
  readonly warnings: readonly string[];
}

/** Processing that has to be off, by the name it has in a track's settings. */
const PROCESSING = ['echoCancellation', 'noiseSuppression', 'autoGainControl'] as const;

/**
 * Recording: device → audio worklet → worker → server. The page itself never touches a sample; it shows levels and
 * tells when to begin and to end.
 */
@Injectable({ providedIn: 'root' })
export class Recorder {
  readonly listening = signal<Listening | null>(null);
  readonly news = signal<RecorderNews | null>(null);
  readonly isRecording = signal(false);
  /** The track ended by itself: the device was unplugged. */
  readonly isLost = signal(false);

  private readonly worker: Remote<RecorderWorker> = wrap<RecorderWorker>(
    new Worker(new URL('./recorder.worker', import.meta.url), { type: 'module' }),
  );
  private context: AudioContext | null = null;
  private capture: AudioWorkletNode | null = null;
  private stream: MediaStream | null = null;
  private playing: AudioBufferSourceNode | null = null;

  /** Chunks that an earlier page left behind are sent now; tells of which recordings. */
  resume(): Promise<string[]> {
    return this.worker.resume();
  }

  /** Inputs of this machine; their names appear once the person has allowed one of them. */
  async devices(): Promise<InputDevice[]> {
    const media = navigator.mediaDevices as MediaDevices | undefined;
    const all = media ? await media.enumerateDevices() : [];
    const inputs = all
      .filter((d) => d.kind === 'audioinput')
      .map((d, i) => ({ id: d.deviceId || 'default', label: d.label || `Input ${i + 1}` }));
    return [...inputs, SIMULATED_BENCH];
  }

  /**
   * Opens a device and starts the level bar.
   *
   * @param device - one of {@link devices}
   * @param channels - 1 or 2
   * @param sampleRateHz - wished for; null takes what the device has
   */
  async open(device: InputDevice, channels: number, sampleRateHz: number | null): Promise<void> {
    await this.close();
    const isBench = device.id === SIMULATED_BENCH.id;
    const stream = isBench ? null : await microphone(device, channels, sampleRateHz);
    const context = new AudioContext({
      latencyHint: 'playback',
      ...(sampleRateHz === null ? {} : { sampleRate: sampleRateHz }),
    });
    await context.audioWorklet.addModule('/capture-worklet.js');
    const capture = new AudioWorkletNode(context, 'capture', {
      numberOfInputs: 1,
      numberOfOutputs: 1,
      channelCount: channels,
      channelCountMode: 'explicit',
      channelInterpretation: 'discrete',
    });
    // The node has to be pulled; its output is silence.
    capture.connect(context.destination);
    const pipe = new MessageChannel();
    capture.port.postMessage({ port: pipe.port1 }, [pipe.port1]);
    await this.worker.listen(
      transfer(pipe.port2, [pipe.port2]),
      context.sampleRate,
      channels,
      proxy((news: RecorderNews) => this.news.set(news)),
    );
    this.context = context;
    this.capture = capture;
    this.stream = stream;
    this.isLost.set(false);
    const track = stream?.getAudioTracks().at(0);
    if (stream) context.createMediaStreamSource(stream).connect(capture);
    if (track) track.onended = () => this.isLost.set(true);
    await context.resume();
    this.listening.set({
      device,
      channels,
      sampleRateHz: context.sampleRate,
      settings: track ? plainSettings(track.getSettings()) : { simulated: true },
      warnings: track ? processingLeft({ ...track.getSettings() }, context.sampleRate) : [],
    });
  }

  /** Begins to record into a recording that the server has opened. */
  async begin(recording: string): Promise<void> {
    await this.worker.begin(recording);
    this.isRecording.set(true);
  }

  /** Ends; resolves with the number of frames once the server has all of them. */
  async end(): Promise<{ frames: number; levels: LiveLevels | null; refused: string | null }> {
    this.isRecording.set(false);
    this.stopBench();
    return this.worker.end();
  }

  /**
   * Renders a take at the simulated bench; it is played into the same path as a device's sound.
   *
   * @returns what starts it; that resolves when it has been played to its end
   */
  async prepareBench(take: BenchTake): Promise<() => Promise<void>> {
    const { context, capture } = this;
    if (!context || !capture) throw new Error('The simulated bench is not switched on.');
    const response = await fetch(PLAIN_PATHS.benchTake, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(take),
    });
    if (!response.ok) throw new Error('The simulated bench could not play this take.');
    const buffer = await context.decodeAudioData(await response.arrayBuffer());
    return () =>
      new Promise((resolve) => {
        const source = new AudioBufferSourceNode(context, { buffer });
        source.connect(capture);
        source.onended = () => resolve();
        source.start();
        this.playing = source;
      });
  }

  stopBench(): void {
    try {
      this.playing?.stop();
    } finally {
      this.playing = null;
    }
  }

  async close(): Promise<void> {
    this.listening.set(null);
    this.news.set(null);
    this.playing = null;
    this.stream?.getTracks().forEach((t) => t.stop());
    this.capture?.disconnect();
    this.stream = null;
    this.capture = null;
    await this.context?.close();
    this.context = null;
  }
}

function microphone(device: InputDevice, channels: number, sampleRateHz: number | null): Promise<MediaStream> {
  return navigator.mediaDevices.getUserMedia({
    audio: {
      deviceId: device.id === 'default' ? undefined : { exact: device.id },
      channelCount: { ideal: channels },
      ...(sampleRateHz === null ? {} : { sampleRate: { ideal: sampleRateHz } }),
      echoCancellation: { exact: false },
      noiseSuppression: { exact: false },
      autoGainControl: { exact: false },
    } as MediaTrackConstraints,
  });
}

/** What is done to the sound in spite of what was asked: processing that is on, and resampling. */
export function processingLeft(settings: Readonly<Record<string, unknown>>, contextRateHz: number): string[] {
  const kept = PROCESSING.filter((name) => settings[name] !== undefined && settings[name] !== false).map(
    (name) => `The browser keeps "${name}" on for this input: its takes are processed and not fit for comparison.`,
  );
  const { sampleRate } = settings;
  if (typeof sampleRate === 'number' && sampleRate !== contextRateHz) {
    kept.push(
      `The input runs at ${sampleRate / 1000} kHz and is resampled to ${contextRateHz / 1000} kHz: set the interface to ${contextRateHz / 1000} kHz.`,
    );
  }
  return kept;
}

function plainSettings(settings: MediaTrackSettings): Record<string, string | number | boolean> {
  return Object.fromEntries(
    Object.entries({ ...settings } as Record<string, unknown>).filter(
      (e): e is [string, string | number | boolean] =>
        ['string', 'number', 'boolean'].includes(typeof e[1]) && !e[0].endsWith('Id'),
    ),
  );
}
