import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { encodeWav } from '#core/audio/wav-write';
import { BiquadCascade } from '#core/dsp/biquad';
import { butterworthHighPass } from '#core/dsp/butterworth';
import { peaking } from '#core/dsp/eq-biquads';
import { fractionalOctaveBands, bandPowers } from '#core/dsp/fractional-octave';
import { welch } from '#core/dsp/welch';
import { kWeighting } from '#core/dsp/k-weighting';
import { analyseClip, type ClipAnalysis } from '#core/measure/clip-analysis';
import { difference } from '#core/measure/difference';
import { openClip } from '#worker/open-clip';
import { packageRoot } from '#server/platform/package-root';

// npm run crosscheck: the same clips through Sediment and through general-purpose programs, where they are installed.
// Installs nothing. Prints how far apart both are, per quantity, and ends with 1 where they disagree.

interface Row {
  readonly quantity: string;
  readonly against: string;
  readonly ours: string;
  readonly theirs: string;
  readonly apart: number;
  readonly allowed: number;
}
const rows: Row[] = [];
const missing: string[] = [];
const folder = mkdtempSync(join(tmpdir(), 'sediment-crosscheck-'));
const has = (command: string, ...args: string[]): boolean => spawnSync(command, args).status === 0;

function compare(quantity: string, against: string, ours: number, theirs: number, allowed: number, decimals = 2): void {
  const apart = Math.abs(ours - theirs);
  rows.push({ quantity, against, ours: ours.toFixed(decimals), theirs: theirs.toFixed(decimals), apart, allowed });
}

async function analyse(path: string): Promise<ClipAnalysis> {
  const stream = openClip(path);
  try {
    return await analyseClip(stream, { reopen: () => openClip(path) });
  } finally {
    stream.close();
  }
}

function loudness(path: string, name: string, analysis: ClipAnalysis): void {
  if (!has('ffmpeg', '-version')) return void missing.push('ffmpeg');
  const { stderr } = spawnSync('ffmpeg', ['-nostats', '-i', path, '-af', 'ebur128=peak=true', '-f', 'null', '-'], {
    encoding: 'utf8',
  });
  const summary = stderr.slice(stderr.lastIndexOf('Summary:'));
  const read = (pattern: RegExp): number => Number(pattern.exec(summary)?.[1]);
  const { loudness: ours } = analysis;
  compare(
    `integrated loudness of ${name}, LUFS`,
    'ffmpeg ebur128',
    ours.integratedLufs,
    read(/I:\s+(-?[\d.]+) LUFS/),
    0.1,
  );
  // Its range and that of libebur128 differ by up to 0.7 LU on speech; EBU Tech 3342 allows 1 LU.
  compare(
    `loudness range of ${name}, LU`,
    'ffmpeg ebur128',
    ours.loudnessRangeLu ?? NaN,
    read(/LRA:\s+(-?[\d.]+) LU/),
    1,
  );
  compare(`true peak of ${name}, dBTP`, 'ffmpeg ebur128', ours.truePeakDbtp, read(/Peak:\s+(-?[\d.]+) dBFS/), 0.2);
}

function level(path: string, name: string, analysis: ClipAnalysis): void {
  if (!has('sox', '--version')) return void missing.push('sox');
  const { stderr } = spawnSync('sox', [path, '-n', 'stats'], { encoding: 'utf8' });
  const read = (label: string): number => Number(new RegExp(`${label}\\s+(-?[\\d.]+)`).exec(stderr)?.[1]);
  // sox has plain RMS: a full-scale sine reads −3.01 dB.
  compare(`RMS of ${name}, dBFS`, 'sox stats + 3.01', analysis.level.rmsDbfs, read('RMS lev dB') + 3.0103, 0.01);
  compare(`sample peak of ${name}, dBFS`, 'sox stats', analysis.level.peakDbfs, read('Pk lev dB'), 0.01);
}

const PYTHON = `
import sys, json, numpy as np
from scipy import signal
from scipy.io import wavfile
rate, a = wavfile.read(sys.argv[1]); _, b = wavfile.read(sys.argv[2])
a = a.astype(float); b = b.astype(float)
n = 16384
f, p = signal.welch(a, rate, window='hann', nperseg=n, noverlap=n//2, detrend=False, scaling='spectrum')
enbw = 1.5
bands = json.loads(sys.argv[3])
def power(lo, hi):
    total = 0.0
    for k in range(1, n//2):
        l, h = (k-0.5)*rate/n, (k+0.5)*rate/n
        total += p[k]/enbw * max(0.0, min(h, hi)-max(l, lo))/(rate/n)
    return 10*np.log10(2*total)
m = 32768
_, pab = signal.csd(a, b, rate, window='hann', nperseg=m, noverlap=m//2, detrend=False)
fb, paa = signal.welch(a, rate, window='hann', nperseg=m, noverlap=m//2, detrend=False)
h = np.abs(pab/paa)
sos = json.loads(sys.argv[4])
w, k = signal.sosfreqz(np.array(sos), worN=[20,100,1000,5000,10000], fs=rate)
print(json.dumps({'bands': [power(lo, hi) for lo, hi in bands],
  'transfer': [float(20*np.log10(np.mean(h[(fb>hz*0.97)&(fb<hz*1.03)]))) for hz in (150, 500, 2000, 6000)],
  'k': [float(20*np.log10(abs(x))) for x in k]}))
`;

function spectra(a: Float64Array, b: Float64Array): void {
  const python = '/usr/bin/python3';
  if (!has(python, '-c', 'import scipy')) return void missing.push('scipy');
  const [first, second] = ['a.wav', 'b.wav'].map((n) => join(folder, n));
  writeFileSync(first, encodeWav([a], 48_000, 'float32'));
  writeFileSync(second, encodeWav([b], 48_000, 'float32'));
  const bands = fractionalOctaveBands(12, 60, 15_000);
  const sections = kWeighting(48_000).map((s) => [s.b0, s.b1, s.b2, 1, s.a1, s.a2]);
  const { stdout, stderr, status } = spawnSync(
    python,
    ['-c', PYTHON, first, second, JSON.stringify(bands.map((x) => [x.lowHz, x.highHz])), JSON.stringify(sections)],
    { encoding: 'utf8', maxBuffer: 1e8 },
  );
  if (status !== 0) throw new Error(stderr);
  const theirs = JSON.parse(stdout) as { bands: number[]; transfer: number[]; k: number[] };
  const { powers, binHz } = welch(Float64Array.from(Float32Array.from(a)), 48_000, 16_384);
  const ours = bandPowers(powers, binHz, bands);
  const worst = Math.max(...theirs.bands.map((db, i) => Math.abs(db - 10 * Math.log10(2 * ours[i]))));
  rows.push({
    quantity: `1/12-octave spectrum, ${bands.length} bands, dB`,
    against: 'scipy welch',
    ours: '',
    theirs: '',
    apart: worst,
    allowed: 0.001,
  });
  const found = difference(a, b, 48_000);
  [150, 500, 2000, 6000].forEach((hz, i) => {
    const point = found.points.reduce((best, p) => (Math.abs(p.hz - hz) < Math.abs(best.hz - hz) ? p : best));
    compare(
      `difference at ${hz} Hz, dB`,
      'scipy csd/welch',
      (point.db ?? NaN) + found.levelDb,
      theirs.transfer[i],
      0.3,
    );
  });
  [20, 100, 1000, 5000, 10_000].forEach((hz, i) => {
    const gain = kWeighting(48_000).reduce((s, section) => s + gainOf(section, hz), 0);
    compare(`K-weighting at ${hz} Hz, dB`, 'scipy sosfreqz', gain, theirs.k[i], 1e-6, 4);
  });
}

function gainOf(section: ReturnType<typeof kWeighting>[number], hz: number): number {
  const w = (2 * Math.PI * hz) / 48_000;
  const part = (b0: number, b1: number, b2: number): number =>
    (b0 + b1 * Math.cos(w) + b2 * Math.cos(2 * w)) ** 2 + (b1 * Math.sin(w) + b2 * Math.sin(2 * w)) ** 2;
  return 10 * Math.log10(part(section.b0, section.b1, section.b2) / part(1, section.a1, section.a2));
}

/** libebur128 in full precision, compiled from a dozen lines of C. */
function library(path: string, analysis: ClipAnalysis): void {
  const source = join(packageRoot, 'bench/ebur128-reference.c');
  const program = join(folder, 'ebur128-reference');
  if (!has('gcc', source, '-o', program, '-lebur128', '-lsndfile'))
    return void missing.push('libebur128 and libsndfile for C');
  const { stdout } = spawnSync(program, [path], { encoding: 'utf8' });
  const [integrated, range, momentary, shortTerm] = stdout.trim().split(/\s+/).map(Number);
  const { loudness: ours } = analysis;
  compare('integrated loudness, LUFS', 'libebur128', ours.integratedLufs, integrated, 0.005, 4);
  compare('loudness range, LU', 'libebur128', ours.loudnessRangeLu ?? NaN, range, 0.5, 3);
  // It moves its window by 100 ms, we by 20 ms: ours finds a maximum at least as high.
  compare('maximum momentary, LUFS', 'libebur128, 100 ms steps', ours.maxMomentaryLufs, momentary, 0.3, 3);
  compare('maximum short-term, LUFS', 'libebur128, 100 ms steps', ours.maxShortTermLufs, shortTerm, 0.1, 3);
}

try {
  for (const name of ['low', 'north', 'high']) {
    const flac = join(packageRoot, `demo/speech/${name}.flac`);
    const analysis = await analyse(flac);
    loudness(flac, name, analysis);
    level(flac, name, analysis);
    if (name === 'low') library(flac, analysis);
  }
  const stream = openClip(join(packageRoot, 'demo/speech/north.flac'));
  const block = [new Float64Array(8192)];
  const samples: number[] = [];
  for (let n = await stream.read(block); n > 0; n = await stream.read(block)) samples.push(...block[0].subarray(0, n));
  stream.close();
  const a = Float64Array.from(samples);
  const b = a.map((x) => x * 0.4);
  new BiquadCascade([...butterworthHighPass(2, 110, 48_000), peaking(48_000, 2500, 5, 1)]).process(b);
  spectra(a, b);
} finally {
  rmSync(folder, { recursive: true, force: true });
}
const worse = rows.filter((r) => !(r.apart <= r.allowed));
for (const r of rows) {
  const values = r.ours === '' ? '' : `${r.ours} against ${r.theirs}, `;
  process.stdout.write(
    `${r.apart <= r.allowed ? 'agrees ' : 'DIFFERS'}  ${r.quantity}: ${values}${r.apart.toPrecision(2)} apart (allowed ${r.allowed}) [${r.against}]\n`,
  );
}
for (const name of new Set(missing)) process.stdout.write(`not compared: ${name} is not installed\n`);
process.exitCode = worse.length > 0 ? 1 : 0;
