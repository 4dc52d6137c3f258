/** A gate as radio links and cameras have them: quiet sound is turned down after a while. */
export interface GateModel {
  /** Level of a window below which it closes, dBFS (plain RMS). */
  readonly thresholdDbfs: number;
  /** What a closed gate takes away, dB. */
  readonly closedDb: number;
  /** How long it stays open after the last loud window, in seconds. */
  readonly holdS: number;
}

const WINDOW_S = 0.005;
/** From open to closed. */
const CLOSES_IN_S = 0.02;

/**
 * Lets a take through a gate, in place.
 *
 * @param samples - full scale ±1
 * @param sampleRate - in hertz
 * @param gate - what it does
 */
export function addGate(samples: Float64Array, sampleRate: number, gate: GateModel): void {
  const window = Math.round(WINDOW_S * sampleRate);
  const closed = 10 ** (-gate.closedDb / 20);
  const perSample = closed ** (1 / (CLOSES_IN_S * sampleRate));
  let [hold, gain] = [0, 1];
  for (let start = 0; start < samples.length; start += window) {
    const end = Math.min(samples.length, start + window);
    let square = 0;
    for (let i = start; i < end; i++) square += samples[i] ** 2;
    const isLoud = 10 * Math.log10(square / (end - start) + 1e-30) > gate.thresholdDbfs;
    hold = isLoud ? gate.holdS : hold - WINDOW_S;
    for (let i = start; i < end; i++) {
      // It opens at once, so that no word loses its beginning.
      gain = hold > 0 ? 1 : Math.max(closed, gain * perSample);
      samples[i] *= gain;
    }
  }
}
