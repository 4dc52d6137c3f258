import { FramePairPlan } from '#core/dsp/fft';
import { ChannelBlock } from '#core/dsp/channel-block';
import { HannFrames } from '#core/dsp/hann-frames';
for (const n of [1024, 16384]) {
  const reps = Math.round((n === 1024 ? 40000 : 2000));
  const f = new FramePairPlan(n); f.window.fill(0.5); f.samples.forEach((_, i) => (f.samples[i] = Math.sin(i * i)));
  const h: any = new HannFrames(new ChannelBlock(2e6), { size: n, step: n, ranges: [{ first: 1, last: n / 2 - 1, firstShare: 1, lastShare: 1 }], onFrames: () => {} });
  h.samples.set(f.samples);
  const flops = 8 * n + 4.25 * n * Math.log2(n) ;
  for (let r = 0; r < 5; r++) {
    let t = performance.now(); for (let i = 0; i < reps; i++) f.framePair(1, n); const a = performance.now() - t;
    t = performance.now(); for (let i = 0; i < reps; i++) h.kernel.framePair(1, n, 16); const b = performance.now() - t;
    t = performance.now(); for (let i = 0; i < reps; i++) h.kernel.framePair(1, n, n / 2); const d = performance.now() - t;
    t = performance.now(); for (let i = 0; i < reps; i++) h.kernel.addFrame(0, n / 2); const e = performance.now() - t;
    t = performance.now(); for (let i = 0; i < reps; i++) h.kernel.gather(2048, 8192, 0); const g = performance.now() - t;
    t = performance.now(); for (let i = 0; i < reps; i++) h.kernel.rangeSums(0, 1); const rs = performance.now() - t;
    console.log(n, 'us f64', (a / reps * 1e3).toFixed(2), 'f32 few bins', (b / reps * 1e3).toFixed(2), 'all', (d / reps * 1e3).toFixed(2), 'GFlop/s', (flops * reps / a / 1e6).toFixed(2), (flops * reps / b / 1e6).toFixed(2), 'add', (e/reps*1e3).toFixed(2), 'sums', (rs/reps*1e3).toFixed(2), 'gather 8192', (g/reps*1e3).toFixed(2));
  }
}
