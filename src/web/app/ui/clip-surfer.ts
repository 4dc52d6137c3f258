import WaveSurfer, { type WaveSurferOptions } from 'wavesurfer.js';
import type { Clip } from '#contracts/clip';
import { PLAIN_PATHS } from '#contracts/http';

/** Playback begins softly: a clip may be far louder than the one before. */
const START_VOLUME = 0.4;
const FADE_S = 0.02;

let playing: WaveSurfer | null = null;

/**
 * A clip's waveform with its sound. The columns are the server's; the sound comes by HTTP ranges as it is needed, so
 * that a two-hour take opens as fast as a short one. One clip sounds at a time.
 */
export function createClipSurfer(
  container: HTMLElement,
  clip: Clip,
  pairs: readonly number[],
  durationS: number,
  options: Partial<WaveSurferOptions> = {},
): WaveSurfer {
  const media = new Audio();
  media.preload = 'none';
  media.src = PLAIN_PATHS.audio.replace(':sha256', clip.sha256);
  const surfer = WaveSurfer.create({
    container,
    media,
    peaks: drawnPeaks(pairs),
    duration: durationS,
    height: 40,
    normalize: false,
    cursorWidth: 1,
    ...waveColours(),
    ...options,
  });
  surfer.setVolume(START_VOLUME);
  surfer.on('destroy', () => {
    if (playing === surfer) playing = null;
  });
  return surfer;
}

/** Plays a clip from where it stands, or pauses it; whatever else sounded stops. */
export async function togglePlayback(surfer: WaveSurfer, mayPlay: () => Promise<boolean>): Promise<void> {
  if (surfer.isPlaying()) {
    surfer.pause();
    return;
  }
  if (!(await mayPlay())) return;
  playing?.pause();
  playing = surfer;
  await surfer.play();
  fadeIn(surfer);
}

function fadeIn(surfer: WaveSurfer): void {
  const start = performance.now();
  const step = (): void => {
    const share = Math.min(1, (performance.now() - start) / (1000 * FADE_S));
    surfer.setVolume(START_VOLUME * share);
    if (share < 1) requestAnimationFrame(step);
  };
  step();
}

/**
 * Columns as they are drawn: on a square-root scale, so that a quiet take is still seen beside a loud one.
 *
 * @param pairs - lowest and highest sample per column, in turn
 */
export function drawnPeaks(pairs: readonly number[]): [Float32Array, Float32Array] {
  const drawn = (x: number): number => Math.sign(x) * Math.sqrt(Math.abs(x));
  const columns = pairs.length / 2;
  return [
    Float32Array.from({ length: columns }, (_, i) => drawn(pairs[2 * i + 1])),
    Float32Array.from({ length: columns }, (_, i) => drawn(pairs[2 * i])),
  ];
}

/** Colours of a waveform in the theme that is on. */
export function waveColours(): { waveColor: string; progressColor: string; cursorColor: string } {
  const style = getComputedStyle(document.documentElement);
  return {
    waveColor: style.getPropertyValue('--quiet').trim(),
    progressColor: style.getPropertyValue('--azurite').trim(),
    cursorColor: style.getPropertyValue('--ink').trim(),
  };
}
