import { spawn, spawnSync } from 'node:child_process';
import { createWriteStream, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { request } from 'node:http';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';
import { once } from 'node:events';
import { encodeSamples } from '#core/audio/sample-encoder';
import { allocateBlock } from '#core/audio/sample-stream';
import { wavHeader } from '#core/audio/wav-write';
import { BiquadCascade } from '#core/dsp/biquad';
import { highPass } from '#core/dsp/eq-biquads';
import { exponentialSweep } from '#core/dsp/exponential-sweep';
import { analyseLevel } from '#core/measure/level-analysis';
import { ALGORITHM_VERSION, RUN_FIGURES_VERSION } from '#core/measure/registry';
import { measureResponse } from '#core/measure/response-report';
import { rankUnits } from '#core/rules/rank';
import type { UnitFacts } from '#core/rules/criterion-points';
import type { Rubric } from '#core/rules/rubric';
import { AnswerTable } from '#core/stats/comparison-answers';
import { fitWorths, NO_PENALTY, USUAL_PENALTY } from '#core/stats/fit-worths';
import { nextPair } from '#core/stats/next-question';
import { seededBits, uniform } from '#core/stats/random';
import { toldByOrder, updatedPosterior } from '#core/stats/worth-posterior';
import { worthScale } from '#core/stats/worth-scale';
import { standardNormal } from '#core/stats/normal';
import { openPglite } from '#server/platform/db/pglite-database';
import { packageRoot, workerFolder } from '#server/platform/package-root';
import { openWorkerPool } from '#server/platform/worker-pool';
import { openApplication } from '#server/wiring';
import { newPlanSchema, takeSettingsSchema } from '#contracts/session-plan';
import { readClip } from '#worker/read-clip';
import analyseClipTask from '#worker/tasks/analyse-clip';
import measurePair from '#worker/tasks/measure-pair';
import measureTone from '#worker/tasks/measure-tone';
import { measureInterfaceRun } from './interface-run';
import { openClip } from '#worker/open-clip';

// Speed and memory, as ratios within one run: machines differ, and so do the minutes of one machine.

interface Row {
  readonly what: string;
  readonly result: string;
  readonly aim: string;
}
const rows: Row[] = [];
const folder = mkdtempSync(join(tmpdir(), 'sediment-bench-'));
const seconds = (since: number): number => (performance.now() - since) / 1000;

/** The demo's dry speech over and over, with a pause after each reading and a little noise; mono, 48 kHz, 24 bits. */
async function writeTake(path: string, minutes: number): Promise<void> {
  const rate = 48_000;
  const frames = minutes * 60 * rate;
  const speech = await drySpeech();
  const period = speech.length + 2 * rate;
  const out = createWriteStream(path);
  out.write(wavHeader({ encoding: 'pcm24', sampleRate: rate, channels: 1, frames }));
  const bits = seededBits('bench');
  const piece = new Float64Array(rate);
  for (let s = 0; s < minutes * 60; s++) {
    for (let i = 0; i < rate; i++)
      piece[i] = 0.4 * (speech[(s * rate + i) % period] ?? 0) + 0.0004 * standardNormal(bits);
    if (!out.write(encodeSamples('pcm24', [piece], 0, rate))) await once(out, 'drain');
  }
  out.end();
  await once(out, 'finish');
}

async function drySpeech(): Promise<Float64Array> {
  const stream = openClip(join(packageRoot, 'demo/speech/low.flac'));
  const samples = new Float64Array(stream.format.frames);
  const block = allocateBlock(1);
  for (let at = 0, n = await stream.read(block); n > 0; n = await stream.read(block)) {
    samples.set(block[0].subarray(0, n), at);
    at += n;
  }
  stream.close();
  return samples;
}

/** Best of three, in seconds: what the machine can do, not what else it was doing. */
async function bestOf(work: () => unknown): Promise<number> {
  let best = Infinity;
  for (let i = 0; i < 3; i++) {
    const start = performance.now();
    await work();
    best = Math.min(best, seconds(start));
  }
  return best;
}

async function levelOnly(path: string): Promise<void> {
  const stream = openClip(path);
  try {
    await analyseLevel(stream);
  } finally {
    stream.close();
  }
}

async function analysis(): Promise<void> {
  const path = join(folder, 'ten-minutes.wav');
  await writeTake(path, 10);
  await analyseClipTask({ path, progress: null });
  const whole = await bestOf(() => analyseClipTask({ path, progress: null }));
  const level = await bestOf(() => levelOnly(path));
  const hasFfmpeg = spawnSync('ffmpeg', ['-version']).status === 0;
  const args = ['-nostats', '-threads', '1', '-i', path, '-af', 'ebur128=peak=true', '-f', 'null', '-'];
  const theirs = hasFfmpeg ? await bestOf(() => spawnSync('ffmpeg', args)) : NaN;
  for (const [what, ours, aim] of [
    ['A, B, E and spectra of 10 min, 48 kHz, 24 bit, mono', whole, 1],
    ['level, loudness, range and true peak alone', level, 2],
  ] as const) {
    const ratio = hasFfmpeg
      ? `${(theirs / ours).toFixed(2)} × as fast as ffmpeg ebur128=peak=true`
      : 'not compared: ffmpeg is not installed';
    rows.push({
      what,
      result: `${ours.toFixed(2)} s, ${(600 / ours).toFixed(0)} × real time; ${ratio}`,
      aim: `≥ ${aim} × ffmpeg`,
    });
  }
}

/** Twenty seconds at 96 kHz through a filter: deconvolved, gated, summarised, with distortion. */
async function sweep(): Promise<void> {
  const rate = 96_000;
  const played = exponentialSweep({ lowHz: 20, highHz: 22_000, seconds: 20 }, rate);
  const recorded = new Float64Array(played.length + rate);
  recorded.set(played, 9600);
  new BiquadCascade([highPass(rate, 80)]).process(recorded);
  const time = await bestOf(() => measureResponse(played, recorded, rate));
  rows.push({
    what: 'sweep of 20 s at 96 kHz, deconvolved and summarised',
    result: `${time.toFixed(2)} s`,
    aim: '< 1 s',
  });
}

/** Tones and pairs as they are measured with a run, each as so many times of reading the clip. */
async function parts(): Promise<void> {
  const path = join(folder, 'one-minute.wav');
  await writeTake(path, 1);
  const decoded = await bestOf(() => readClip(path));
  for (const [what, work] of [
    ['tones of a clip of a minute', () => measureTone({ path })],
    ['difference of a pair of a minute each', () => measurePair({ fitted: path, without: path })],
  ] as const) {
    const time = await bestOf(work);
    rows.push({
      what,
      result: `${time.toFixed(2)} s, ${(time / decoded).toFixed(0)} × reading it`,
      aim: 'under 60 / 50 s',
    });
  }
}

/** Forty takes of an interface, from the import to the last figure. */
async function interfaceRun(): Promise<void> {
  const { takes, soundS, tookS, figures } = await measureInterfaceRun(join(folder, 'interface-run'));
  rows.push({
    what: `a run of ${takes} takes of an interface, ${soundS.toFixed(0)} s of sound, ${figures} figures`,
    result: `${tookS.toFixed(1)} s, ${(soundS / tookS).toFixed(0)} × real time`,
    aim: '≥ 50 × real time',
  });
}

/** Two hours in a process of its own; what it needs beyond an idle one is the clip's. */
async function longTake(): Promise<void> {
  const path = join(folder, 'two-hours.wav');
  await writeTake(path, 120);
  const { stderr } = spawnSync(
    '/usr/bin/time',
    ['-v', process.execPath, join(packageRoot, 'dist/node/cli.js'), 'analyze', path],
    {
      encoding: 'utf8',
    },
  );
  const kilobytes = Number(/Maximum resident set size \(kbytes\): (\d+)/.exec(stderr)?.[1]);
  const result = Number.isFinite(kilobytes)
    ? `${(kilobytes / 1024).toFixed(0)} MB at most, the whole process`
    : 'not measured: /usr/bin/time is not installed';
  rows.push({ what: 'memory of analysing 2 h, 48 kHz, 24 bit, mono', result, aim: '< 250 MB' });
  rmSync(path);
}

/** Twenty takes of a minute by one worker, and by one per core. */
async function session(): Promise<void> {
  const paths = Array.from({ length: 20 }, (_, i) => join(folder, `take-${i}.wav`));
  for (const path of paths) await writeTake(path, 1);
  const by = async (threads: number): Promise<number> => {
    const pool = openWorkerPool(workerFolder, threads);
    await Promise.all(paths.slice(0, threads).map((path) => pool.analyse(path, () => undefined)));
    const start = performance.now();
    await Promise.all(paths.map((path) => pool.analyse(path, () => undefined)));
    const time = seconds(start);
    await pool.close();
    return time;
  };
  const cores = availableParallelism();
  const [one, all] = [await by(1), await by(cores)];
  rows.push({
    what: `20 takes of 1 min, ${cores} threads against one`,
    result: `${all.toFixed(2)} s against ${one.toFixed(2)} s, ${(one / all).toFixed(2)} × as fast`,
    aim: `near ${cores} ×`,
  });
}

/** One clip of half an hour by one thread, and by two that take its stretches in turn. */
async function longShared(): Promise<void> {
  const path = join(folder, 'half-an-hour.wav');
  await writeTake(path, 30);
  const by = async (threads: number): Promise<number> => {
    const pool = openWorkerPool(workerFolder, threads);
    const time = await bestOf(() => pool.analyse(path, () => undefined));
    await pool.close();
    return time;
  };
  const [one, two] = [await by(1), await by(2)];
  rows.push({
    what: 'one clip of 30 min, two threads that take its stretches against one',
    result: `${two.toFixed(2)} s against ${one.toFixed(2)} s, ${(one / two).toFixed(2)} × as fast`,
    aim: '≥ 1.8 ×',
  });
  rmSync(path);
}

function ranking(): void {
  const rubric = JSON.parse(
    readFileSync(join(packageRoot, 'src/server/seed/rubric-microphone-1.json'), 'utf8'),
  ) as Rubric;
  const bits = seededBits('units');
  const units: UnitFacts[] = Array.from({ length: 2000 }, (_, i) => ({
    id: String(i + 1),
    figures: {
      noiseReSpeechA: { value: -80 + 30 * uniform(bits), uncertainty: 0.5, bound: 'exact', notMeasured: null },
      rearRejection: { value: 18 * uniform(bits), uncertainty: 0.6, bound: 'exact', notMeasured: null },
    },
    byHand: Object.fromEntries(
      ['sound', 'features', 'build'].map((c) => [c, { value: 5 * uniform(bits), reason: null }]),
    ),
    prices: [{ amount: 50 + 1000 * uniform(bits), currency: 'EUR', kind: 'street', date: '2025-01-01' }],
  }));
  rankUnits(units.slice(0, 100), rubric);
  const start = performance.now();
  rankUnits(units, rubric);
  rows.push({
    what: 'ranking 2,000 units, 500 draws',
    result: `${seconds(start).toFixed(2)} s`,
    aim: 'well under 1 s',
  });
}

/** Fills a catalogue by SQL: what is measured is how quick the lists stay, not how clips are analysed. */
const catalogue = (): Promise<void> => catalogueOf(3400);
const largeCatalogue = (): Promise<void> => catalogueOf(10_000);

async function catalogueOf(units: number): Promise<void> {
  const data = join(folder, `catalogue-${units}`);
  const first = await startServer(data);
  await first.stop();
  const database = await openPglite({ folder: join(data, 'database') });
  await database.transaction(async (tx) => {
    await tx.query(
      `INSERT INTO model (maker, name, category) SELECT 'Maker ' || (i % 60), 'Model ' || i, 'microphone' FROM generate_series(1, $1::int) i`,
      [units],
    );
    await tx.query(`INSERT INTO specimen (model_id, label) SELECT id, 'A' FROM model`);
    await tx.query(`INSERT INTO session (held_on) SELECT date '1998-01-01' + i FROM generate_series(1, $1::int) i`, [
      units,
    ]);
    await tx.query(`INSERT INTO run (session_id, specimen_id, protocol_version_id, source, import_key)
                    SELECT s.id, s.id, (SELECT min(id) FROM protocol_version), 'bought', 'k' || s.id FROM specimen s`);
    await tx.query(
      `INSERT INTO clip SELECT lpad(to_hex(r.id * 100 + st.ordinal), 64, '0'), 1, 'wav', 'pcm24', 48000, 1, 10, 'x.wav' FROM run r JOIN step st USING (protocol_version_id)`,
    );
    await tx.query(`INSERT INTO take (run_id, step_id, clip_sha256, gain_db, ordinal)
                    SELECT r.id, st.id, lpad(to_hex(r.id * 100 + st.ordinal), 64, '0'), 40, st.ordinal FROM run r JOIN step st USING (protocol_version_id)`);
    await tx.query(
      `INSERT INTO analysis (clip_sha256, algorithm_version, status) SELECT sha256, $1::int, 'done' FROM clip`,
      [ALGORITHM_VERSION],
    );
    await tx.query(`INSERT INTO measurement (run_id, quantity, algorithm_version, value, uncertainty, bound, document)
                    SELECT r.id, q.name, ${ALGORITHM_VERSION}, q.base - (r.id * 7919 % 200) / 10.0, 0.5, 'exact', json_build_object(
                      'quantity', q.name, 'value', q.base, 'bound', 'exact', 'condition', 'bench', 'spread', null,
                      'uncertainty', 0.5, 'notMeasured', null, 'settings', json_build_object())
                    FROM run r CROSS JOIN (VALUES ('noiseReSpeechA', -55.0), ('rearRejection', 22.0)) q (name, base)`);
    // Else the server measures all of them at its start, and the list competes with that.
    await tx.query('INSERT INTO run_measured (run_id, algorithm_version, figures_version) SELECT id, $1, $2 FROM run', [
      ALGORITHM_VERSION,
      RUN_FIGURES_VERSION,
    ]);
    await tx.query(
      `INSERT INTO price (specimen_id, amount, currency, kind, effective_on) SELECT id, 50 + id, 'EUR', 'street', '2025-01-01' FROM specimen`,
    );
  });
  await database.close();
  const server = await startServer(data);
  const timed = async (path: string): Promise<string> => {
    const start = performance.now();
    await (await fetch(server.address + path)).text();
    return `${seconds(start).toFixed(2)} s`;
  };
  rows.push({
    what: `first list of ${units.toLocaleString('en')} units, ranked`,
    result: await timed('/api/specimens'),
    aim: '',
  });
  rows.push({ what: 'the same list again', result: await timed('/api/specimens'), aim: 'quick' });
  const took: number[] = [];
  for (const amount of [99, 98, 97, 96, 95]) {
    const noted = await fetch(`${server.address}/api/specimens/1700/prices`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ amount, currency: 'EUR', kind: 'street', date: '2025-02-01' }),
    });
    if (!noted.ok) throw new Error(`a price was refused: ${await noted.text()}`);
    const start = performance.now();
    await (await fetch(`${server.address}/api/specimens`)).text();
    took.push(seconds(start));
  }
  rows.push({
    what: 'the list after a price was noted, five times',
    result: took.map((s) => `${s.toFixed(2)} s`).join(', '),
    aim: '< 0.1 s',
  });
  rows.push({ what: 'one unit’s sheet', result: await timed('/api/specimens/1700'), aim: 'quick' });
  rows.push({ what: 'what the page ranks by', result: await timed('/api/ranking/microphone/inputs'), aim: 'quick' });
  rows.push({ what: 'the same of a day that is over', result: await timed('/api/ranking/microphone/on/2025-01-31'), aim: 'below the first list' }); // prettier-ignore
  rows.push({ what: 'core log of all sessions', result: await timed('/api/sessions'), aim: 'quick' });
  rows.push({ what: 'memory of the server after all this', result: `${memoryOf(server.pid).toFixed(0)} MB`, aim: '' });
  await server.stop();
}

async function startServer(data: string): Promise<{ address: string; pid: number; stop: () => Promise<void> }> {
  mkdirSync(data, { recursive: true });
  const port = 4900 + Math.floor(uniform(seededBits(String(process.hrtime.bigint()))) * 900);
  const child = spawn(process.execPath, [join(packageRoot, 'dist/node/main.js')], {
    env: { ...process.env, SEDIMENT_DATA: data, SEDIMENT_PORT: String(port) },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise<void>((resolve, reject) => {
    child.stdout.on('data', (part: Buffer) => part.toString().includes('Sediment is at') && resolve());
    child.on('exit', (code) => reject(new Error(`the server ended with ${code}`)));
  });
  return {
    address: `http://127.0.0.1:${port}`,
    pid: child.pid ?? 0,
    stop: async () => {
      child.kill('SIGTERM');
      await once(child, 'exit');
    },
  };
}

/** Resident memory of a process in MB, from /proc. */
function memoryOf(pid: number): number {
  const status = readFileSync(`/proc/${pid}/status`, 'utf8');
  return Number(/VmRSS:\s+(\d+)/.exec(status)?.[1]) / 1024;
}

async function memory(): Promise<void> {
  if (!existsSync('/proc/self/status')) {
    rows.push({
      what: 'memory while uploading 1 GB',
      result: 'not measured: no /proc on this system',
      aim: '< 200 MB above idle',
    });
    return;
  }
  const server = await startServer(join(folder, 'upload'));
  await fetch(`${server.address}/api/specimens`);
  const idle = memoryOf(server.pid);
  let highest = idle;
  const watch = setInterval(() => (highest = Math.max(highest, memoryOf(server.pid))), 50);
  const frames = Math.floor(1e9 / 6);
  const start = performance.now();
  await new Promise<void>((resolve, reject) => {
    const sending = request(`${server.address}/api/clips?name=long.wav`, { method: 'POST' }, (response) => {
      response.resume();
      response.on('end', () =>
        response.statusCode === 200 ? resolve() : reject(new Error(`upload: ${response.statusCode}`)),
      );
    });
    void (async () => {
      sending.write(wavHeader({ encoding: 'pcm24', sampleRate: 48_000, channels: 2, frames }));
      const piece = Buffer.alloc(6 * 48_000, 7);
      for (let sent = 0; sent < frames; sent += 48_000) {
        const part = piece.subarray(0, 6 * Math.min(48_000, frames - sent));
        if (!sending.write(part)) await once(sending, 'drain');
      }
      sending.end();
    })();
  });
  clearInterval(watch);
  rows.push({
    what: 'memory while uploading 1 GB',
    result: `${(highest - idle).toFixed(0)} MB above idle (${idle.toFixed(0)} MB), in ${seconds(start).toFixed(1)} s`,
    aim: '< 200 MB above idle',
  });
  await server.stop();
}

/** From the end of a take in the booth to its verdict, on the server: a clip is made, analysed and held against the others. */
async function booth(): Promise<void> {
  const application = await openApplication({ folder: join(folder, 'booth') });
  const plan = await application.plans.add(
    newPlanSchema.parse({
      title: 'Bench',
      day: '2026-01-01',
      category: 'microphone',
      protocol: 'desk-voice',
      protocolVersion: 1,
      units: [{ maker: 'Oarlock', model: 'Purser', label: 'A', source: 'own' }],
      withControl: false,
    }),
  );
  for (const minutes of [0.25, 10]) {
    const path = join(folder, `booth-${minutes}.wav`);
    await writeTake(path, minutes);
    const audio = readFileSync(path).subarray(44);
    const { id } = await application.recordings.start({
      slot: plan.slots[0].id,
      step: 'speech',
      sampleRateHz: 48_000,
      channels: 1,
      device: 'bench',
      settings: {},
    });
    const chunk = 3 * 24_000;
    for (let at = 0; at < audio.length; at += chunk)
      await application.recordings.write(id, at / 3, audio.subarray(at, at + chunk));
    const start = performance.now();
    const { clip } = await application.recordings.finish(id, null, 'take.wav');
    await application.booth.addTake(plan.slots[0].id, {
      step: 'speech',
      clip: clip.sha256,
      settings: takeSettingsSchema.parse({ gainDb: 40 }),
      note: '',
    });
    rows.push({
      what: `verdict on a take of ${minutes * 60} s, after its end`,
      result: `${seconds(start).toFixed(2)} s`,
      aim: minutes < 1 ? '< 1 s' : '',
    });
  }
  await application.close();
}

/** Answers of pairs between units of known worth, mostly between neighbours, one in eight of them heats of four. */
function heardAnswers(units: number, answers: number): AnswerTable {
  const bits = seededBits(`heard ${units}`);
  const truth = Float64Array.from({ length: units }, () => 1.5 * standardNormal(bits));
  const table = new AnswerTable(units);
  const any = (): number => Math.floor(uniform(bits) * units);
  const felt = (i: number): number => truth[i] - Math.log(-Math.log(uniform(bits) + 1e-12));
  for (let i = 0; i < answers; i++) {
    const items = [...new Set(i % 8 === 0 ? [any(), any(), any(), any()] : [any(), any()])];
    if (items.length < 2) continue;
    const order = items.map((item) => ({ item, x: felt(item) })).sort((p, q) => q.x - p.x);
    if (items.length > 2) table.addOrder({ items: order.map((o) => o.item), weight: 1 });
    else {
      const isTie = order[0].x - order[1].x < 0.1;
      table.addPair({ a: order[0].item, b: order[1].item, outcome: isTie ? 0.5 : 1, tiesAllowed: true, weight: 1 });
    }
  }
  return table;
}

/** One scale of a large catalogue: whole, after one more answer, and the next question. */
function heardScale(): void {
  const table = heardAnswers(1000, 50_000);
  const started = performance.now();
  const scale = worthScale(table);
  const whole = seconds(started);
  const again = performance.now();
  table.addPair({ a: 5, b: 9, outcome: 1, tiesAllowed: true, weight: 1 });
  const fit = fitWorths(table, USUAL_PENALTY, scale.fit.parameters, scale.posterior.covariance);
  const told = toldByOrder(fit.logWorth, [5, 9]);
  const posterior = updatedPosterior(scale.posterior, scale.fit.logWorth, fit.logWorth, told);
  const one = seconds(again);
  const asked = performance.now();
  nextPair(
    { logWorth: fit.logWorth, posterior, tie: fit.tie },
    5,
    Array.from({ length: 1000 }, (_, i) => i),
  );
  const next = seconds(asked);
  rows.push({
    what: 'scale of 1,000 units, 50,000 answers, with covariance and places',
    result: `${whole.toFixed(2)} s; after one more answer ${(1000 * one).toFixed(0)} ms; next question ${(1000 * next).toFixed(0)} ms`,
    aim: '< 2 s, < 200 ms',
  });
  compareWithR();
}

/** The same 60 units and 6,000 pairs by R's BradleyTerry2, in one run. */
function compareWithR(): void {
  const path = join(folder, 'pairs.csv');
  const bits = seededBits('pairs for R');
  const truth = Float64Array.from({ length: 60 }, () => standardNormal(bits));
  const table = new AnswerTable(60);
  for (let i = 0; i < 6000; i++) {
    const a = Math.floor(uniform(bits) * 60);
    const b = (a + 1 + Math.floor(uniform(bits) * 59)) % 60;
    const outcome = uniform(bits) < 1 / (1 + Math.exp(truth[b] - truth[a])) ? 1 : 0;
    table.addPair({ a, b, outcome, tiesAllowed: false, weight: 1 });
  }
  const lines = table.pairA.map((a, e) => `u${a},u${table.pairB[e]},${table.winsA[e]},${table.winsB[e]}`);
  writeFileSync(path, `a,b,wins,losses\n${lines.join('\n')}\n`);
  const script = `suppressMessages(library(BradleyTerry2)); d <- read.csv("${path}"); l <- sort(unique(c(d$a, d$b))); d$a <- factor(d$a, l); d$b <- factor(d$b, l); t <- system.time(m <- BTm(cbind(wins, losses), a, b, data = d))[["elapsed"]]; cat(t, sprintf("%.6f", BTabilities(m)[, 1]), sep = "\\n")`;
  const r = spawnSync('R', ['--slave', '-e', script], { encoding: 'utf8' });
  if (r.status !== 0) {
    rows.push({
      what: 'scale against R BradleyTerry2',
      result: 'not compared: R with BradleyTerry2 is not installed',
      aim: 'agree',
    });
    return;
  }
  const [time, ...abilities] = r.stdout.trim().split('\n').map(Number);
  const started = performance.now();
  const { logWorth } = fitWorths(table, NO_PENALTY);
  const own = seconds(started);
  const names = Array.from({ length: 60 }, (_, i) => `u${i}`).sort();
  const zero = logWorth[Number(names[0].slice(1))];
  const worst = Math.max(...names.map((n, i) => Math.abs(logWorth[Number(n.slice(1))] - zero - abilities[i])));
  rows.push({
    what: 'scale of 60 units, 6,000 pairs, without penalty',
    result: `${(time / own).toFixed(0)} × as fast as R BradleyTerry2; log worths within ${worst.toExponential(1)}`,
    aim: 'within 1e-4',
  });
}

const PARTS = {
  analysis,
  session,
  longShared,
  sweep,
  parts,
  interfaceRun,
  longTake,
  ranking,
  catalogue,
  largeCatalogue,
  booth,
  heardScale,
  memory,
};
/** Names of parts on the command line; all of them by default. */
const chosen = process.argv.slice(2);

try {
  for (const [name, part] of Object.entries(PARTS)) {
    if (chosen.length > 0 && !chosen.includes(name)) continue;
    await part();
    for (const { what, result, aim } of rows.splice(0)) console.log(`${what}: ${result}${aim ? ` (aim: ${aim})` : ''}`);
  }
} finally {
  rmSync(folder, { recursive: true, force: true });
}
