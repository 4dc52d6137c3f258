import { describe, expect, it } from 'vitest';
import { decodeSamples } from '#core/audio/sample-codec';
import { protocolSchema } from '#contracts/protocol';
import type { ProtocolVersion } from '#contracts/protocol-page';
import { takeSettingsSchema, type DueUnit, type PlanRow, type Slot, type SlotTake } from '#contracts/session-plan';
import { processingLeft } from '../audio/recorder';
import { TakeWriter } from '../audio/take-writer';
import { distanceText, placementSketch } from '../ui/placement-geometry';
import { barShare, levelWord } from '../ui/level-scale';
import { rowOf } from '../ui/rig-health';
import { dueSentence, nextSession } from './bench/next-step';
import { withAnswers } from './booth/answers';
import { loadBenchChoice, saveBenchChoice } from './booth/bench-choice';
import { differences, settingsLine, startingSettings } from './booth/take-defaults';
import {
  copyOf,
  draftOf,
  emptyProtocol,
  gainRule,
  moved,
  newStep,
  openDecisions,
  withCheck,
  withLength,
} from './protocols/protocol-draft';
import { Refusals } from '../ui/field/refusals';
import { rowsOf } from './protocols/protocols';
import { conditionsOf, playWords } from './protocols/step-words';
import { resultText } from './rigs/rigs';
import { controlOf, emptyPlan, minutesText, newestOf, onDay, tooLate } from './sessions/plan-form';
import { keptCount, ruledGain, stepState, takeOfStep, whereToGoOn } from './sessions/session-progress';
import { exchanged, proposed } from './sessions/files';
import { PROTOCOL, SPEECH, SILENCE, CLOSE, LATENCY, take, slot, planWith } from '../testing/session-in-small';
import { pulled, withStretch, withoutStretch } from './sessions/cut-marks';
import type { MatchProposal } from '#contracts/session-plan';
import { rigDocumentSchema, type Rig } from '#contracts/rig';

describe('how far a session is', () => {
  it('counts the kept take of a step before any newer one that is open', () => {
    const s = slot([take(1, SPEECH, 'kept'), take(2, SPEECH, 'open'), take(3, SILENCE, 'retaken')]);
    expect(takeOfStep(s, 'speech')?.id).toBe('1');
    expect([stepState(s, SPEECH), stepState(s, SILENCE), stepState(s, LATENCY)]).toEqual(['kept', 'empty', 'empty']);
    expect(keptCount(planWith(s), s)).toBe(1);
    expect(stepState(slot([take(1, SPEECH, 'open', { verdict: 'redo' })]), SPEECH)).toBe('redo');
    const filled = slot([], {
      tables: [{ step: 'latency', cells: [{ row: '48', column: '64', value: 5, source: 'typed', clip: null }] }],
    });
    expect(stepState(filled, LATENCY)).toBe('kept');
  });

  it('goes on at the first step that is not kept, of the first unit that is no run yet', () => {
    const done = slot([], { id: 'a', runId: '9' });
    const open = slot([take(1, SPEECH, 'kept')], { id: 'b' });
    expect(whereToGoOn(planWith(done, open))).toMatchObject({ slot: { id: 'b' }, step: { id: 'silence' } });
    expect(whereToGoOn(planWith(done))).toBeNull();
  });

  it('knows the gain that a rule gives today, never below nothing', () => {
    const s = slot([take(1, SPEECH, 'kept')]);
    const ruled = [ruledGain(s, SILENCE), ruledGain(s, CLOSE), ruledGain(s, SPEECH), ruledGain(slot([]), SILENCE)];
    expect(ruled.map((gain) => gain?.gainDb)).toEqual([36, 0, undefined, undefined]);
  });

  it('takes a place of the dial over where nothing is turned, and knows none where it is', () => {
    const spoken = take(1, SPEECH, 'kept');
    const s = slot([{ ...spoken, settings: { ...spoken.settings, gainDb: null, dial: '50 %' } }]);
    expect(ruledGain(s, SILENCE)).toEqual({ gainDb: null, dial: '50 %' });
    expect(ruledGain(s, CLOSE)).toBeNull();
    expect(startingSettings(s, SILENCE)).toMatchObject({ gainDb: null, dial: '50 %' });
    expect(ruledGain(s, { ...SPEECH, gain: { rule: 'dial', position: '7' } })).toEqual({ gainDb: null, dial: '7' });
    // How much the most is has to be read off: figures that are tied to volts need it.
    expect(ruledGain(s, { ...SPEECH, gain: { rule: 'maximum' } })).toBeNull();
  });
});

describe('settings of a take', () => {
  it('come from the take itself, else from the one before with the ruled gain, else from the last session', () => {
    const s = slot([take(1, SPEECH, 'kept')]);
    expect(startingSettings(s, SPEECH).gainDb).toBe(36);
    expect(startingSettings(s, CLOSE)).toMatchObject({ gainDb: 0, pad: '−10' });
    const before = slot([], {
      lastSettings: [{ step: 'speech', day: '2026-01-01', settings: { gainDb: 41, voice: 'low' } }],
    });
    expect(startingSettings(before, SPEECH)).toMatchObject({ gainDb: 41, voice: 'low', distanceM: 0.15, angleDeg: 0 });
    expect(startingSettings(slot([]), SPEECH).gainDb).toBeNull();
  });

  it('say in what they differ from the last session, and not what nobody noted then', () => {
    const s = slot([], {
      lastSettings: [
        { step: 'speech', day: '2026-01-01', settings: { gainDb: 41, pad: '', phantom: true, distanceM: 0.15 } },
      ],
    });
    const now = takeSettingsSchema.parse({ gainDb: 36, pad: '−10', phantom: null, distanceM: 0.15 });
    expect(differences(s, SPEECH, now)).toEqual({
      day: '2026-01-01',
      texts: ['gain 41.0 dB then, 36.0 dB now', 'phantom power on then, not noted now'],
    });
    expect(differences(s, SILENCE, now)).toBeNull();
  });
});

describe('answers of the server', () => {
  it('stand before the plan is fetched anew, and give way to what was fetched later', () => {
    const stale = slot([take(1, SPEECH, 'open', { verdict: 'redo' })]);
    const answered = withAnswers(stale, [{ slot: '1', take: take(2, SPEECH, 'open') }]);
    expect(answered.takes.map((t) => [t.id, t.state])).toEqual([
      ['1', 'retaken'],
      ['2', 'open'],
    ]);
    const fetched = slot([take(1, SPEECH, 'retaken'), take(2, SPEECH, 'kept')]);
    expect(withAnswers(fetched, [{ slot: '1', take: take(2, SPEECH, 'open') }])).toEqual(fetched);
    expect(withAnswers(stale, [{ slot: 'other', take: take(3, SPEECH, 'open') }])).toBe(stale);
  });
});

describe('recording', () => {
  it('cuts the stream into chunks of half a second that know their place and keep every sample', () => {
    const writer = new TakeWriter('r', 8000);
    const samples = Float32Array.from({ length: 10_000 }, (_, i) => Math.sin(i / 7) / 2);
    const chunks = [];
    for (let at = 0; at < samples.length; at += 1024) {
      const chunk = writer.push([samples.subarray(at, at + 1024)]);
      if (chunk) chunks.push(chunk);
    }
    const last = writer.flush();
    if (last) chunks.push(last);
    expect(writer.frames).toBe(samples.length);
    expect(chunks.map((c) => c.frame)).toEqual([0, 4096, 8192]);
    expect(writer.flush()).toBeNull();
    for (const { frame, bytes } of chunks) {
      const frames = bytes.length / 3;
      const decoded = [new Float64Array(frames)];
      decodeSamples('pcm24', bytes, decoded, frames);
      decoded[0].forEach((x, i) => expect(Math.abs(x - samples[frame + i])).toBeLessThanOrEqual(2 ** -24));
    }
  });

  it('names what the browser does to the sound against its will', () => {
    const off = { echoCancellation: false, noiseSuppression: false, autoGainControl: false, sampleRate: 48_000 };
    expect(processingLeft(off, 48_000)).toEqual([]);
    expect(processingLeft({}, 48_000)).toEqual([]);
    expect(processingLeft({ ...off, autoGainControl: true }, 48_000)[0]).toContain('autoGainControl');
    expect(processingLeft(off, 44_100)[0]).toContain('resampled to 44.1 kHz');
    // Newer browsers tell of a kind of cancellation rather than of yes and no.
    expect(processingLeft({ ...off, echoCancellation: 'all' }, 48_000)).toHaveLength(1);
  });

  it('remembers the bench, but not its faults, and does not mind a broken memory', () => {
    const memory = new Map<string, string>();
    const storage = {
      getItem: (k: string) => memory.get(k) ?? null,
      setItem: (k: string, v: string) => void memory.set(k, v),
    };
    const usual = loadBenchChoice(storage);
    saveBenchChoice(storage, { ...usual, room: 'hall', faults: ['hum'] });
    expect(loadBenchChoice(storage)).toEqual({ ...usual, room: 'hall', faults: [] });
    memory.forEach((_, k) => memory.set(k, '{"room":1}'));
    expect(loadBenchChoice(storage)).toEqual(usual);
  });
});

describe('the level bar', () => {
  it('places decibels evenly from −60 to 0', () => {
    expect([-90, -60, -30, 0, 3, -Infinity].map(barShare)).toEqual([0, 0, 0.5, 1, 1, 0]);
  });
  it.each([
    [-10, 0, 'in the window'],
    [-13, 0, 'too soft'],
    [-8, 0, 'too loud'],
    [-10, 1, 'clipped'],
    [-Infinity, 0, 'nothing'],
  ])('%d dBFS with %i clipped runs is %s', (peak, clipped, word) => {
    expect(levelWord(peak, { lowDbfs: -12, highDbfs: -9 }, clipped)).toBe(word);
  });
  it('without a window only knows the end of the scale', () => {
    expect([levelWord(-20, null, 0), levelWord(-0.5, null, 0)]).toEqual(['level', 'no room left']);
  });
});

describe('the placement sketch', () => {
  it('puts the source where the step does: in front is up, 90° is right, behind is down', () => {
    const at = (angle: number) => placementSketch(1, angle).source;
    expect(at(0).x).toBeCloseTo(0, 9);
    expect(at(0).y).toBeLessThan(0);
    expect(at(90).x).toBeGreaterThan(0);
    expect(at(90).y).toBeCloseTo(0, 9);
    expect(at(180).y).toBeGreaterThan(0);
    expect(placementSketch(1, 0).arc).toBe('');
  });
  it('keeps near and far inside the picture, further is further out', () => {
    const r = (m: number): number => -placementSketch(m, 0).source.y;
    expect(r(0.03)).toBeGreaterThan(10);
    expect(r(0.15)).toBeGreaterThan(r(0.03));
    expect(r(3)).toBeGreaterThan(r(0.15));
    expect(r(20)).toBeLessThanOrEqual(100);
    expect([distanceText(0.15), distanceText(0.025), distanceText(1.5)]).toEqual(['15 cm', '2.5 cm', '1.5 m']);
  });
});

describe('writing a protocol', () => {
  const version = (isFrozen: boolean): ProtocolVersion => ({
    protocol: PROTOCOL,
    runs: 0,
    isFrozen,
    firstUsed: null,
    lastUsed: null,
  });

  it('changes an unused version itself, and makes the next one of a used one', () => {
    expect(draftOf(version(false), 4).version).toBe(1);
    expect(draftOf(version(true), 4)).toMatchObject({ version: 5, changes: '' });
  });
  it('gives new steps names of their own, and moves them without losing any', () => {
    const steps = [...PROTOCOL.steps, newStep(PROTOCOL.steps)];
    expect(new Set([...steps, newStep(steps)].map((s) => s.id)).size).toBe(6);
    expect(moved(['a', 'b', 'c'], 1, -1)).toEqual(['b', 'a', 'c']);
    expect(moved(['a', 'b'], 0, -1)).toEqual(['a', 'b']);
    expect(protocolSchema.safeParse(emptyProtocol()).success).toBe(true);
  });
  it('asks only for what shapes the result', () => {
    const draft = { ...PROTOCOL, version: 2, steps: PROTOCOL.steps.map((s) => ({ ...s, title: `${s.title}!` })) };
    expect(openDecisions(PROTOCOL, draft)).toEqual([]);
    draft.steps[0] = { ...draft.steps[0], distanceM: 0.2 };
    expect(openDecisions(PROTOCOL, draft).map((c) => c.step)).toEqual(['speech']);
    expect(openDecisions(undefined, draft)).toEqual([]);
  });
  it('starts a gain rule with numbers that make sense', () => {
    expect(gainRule('peaks', [])).toEqual({ rule: 'peaks', lowDbfs: -12, highDbfs: -9 });
    expect([gainRule('as-step', []), gainRule('none', []), gainRule('as-step', [SPEECH])]).toEqual([
      null,
      null,
      { rule: 'as-step', step: 'speech', byDb: 0 },
    ]);
  });
  it('puts a step into words, and sums up what a version changed', () => {
    expect(playWords(SPEECH)).toBe('read the passage');
    expect(conditionsOf(LATENCY).map((c) => c.name)).toEqual(['Gain', 'Table']);
    const next = { ...PROTOCOL, version: 2, steps: [{ ...SPEECH, distanceM: 0.2 }, SILENCE] };
    const [row] = rowsOf([
      { ...version(true), runs: 2, firstUsed: '2025-01-01', lastUsed: '2025-02-01' },
      { ...version(false), protocol: next },
    ]);
    expect(row).toMatchObject({
      used: '2 runs, 2025-01-01 to 2025-02-01',
      change: '1 comparable, 1 to be decided, 2 gone',
    });
  });
});

describe('planning', () => {
  const of = (id: string, v: number, runs: number): ProtocolVersion => ({
    protocol: { ...PROTOCOL, id, version: v },
    runs,
    isFrozen: runs > 0,
    firstUsed: null,
    lastUsed: null,
  });

  it('starts with the newest version of the protocol that is used most', () => {
    const versions = [of('a', 1, 3), of('a', 2, 0), of('b', 1, 1)];
    expect(newestOf(versions, 'microphone')?.protocol).toMatchObject({ id: 'a', version: 2 });
    expect(newestOf(versions, 'booster')).toBeUndefined();
    expect(emptyPlan('2026-05-02', versions, [], 'microphone')).toMatchObject({
      protocol: 'a',
      protocolVersion: 2,
      rig: null,
    });
  });
  it('on another day is called by it, unless somebody has called it otherwise', () => {
    const plan = { title: 'Session of 2026-03-01', day: '2026-03-01' };
    expect(onDay(plan, '2026-04-02')).toEqual({ title: 'Session of 2026-04-02', day: '2026-04-02' });
    expect(onDay({ ...plan, title: 'Shields' }, '2026-04-02')).toEqual({ title: 'Shields', day: '2026-04-02' });
  });

  it('sees loans that are gone by then', () => {
    const plan = emptyPlan('2026-05-02', [], [], 'microphone');
    const unit = { ...plan.units[0], maker: 'X' };
    const units = ['2026-05-01', '2026-05-02', '2026-05-03', null].map((dueBack) => ({ ...unit, dueBack }));
    expect(tooLate({ ...plan, units })).toHaveLength(2);
  });
  it.each([
    [45, '45 min'],
    [60, '1 h'],
    [95, '1 h 35 min'],
  ])('%i minutes are %s', (minutes, text) => expect(minutesText(minutes)).toBe(text));
});

describe('what the bench says of sessions', () => {
  const row = (status: PlanRow['status'], day: string): PlanRow => ({ id: day, status, day }) as unknown as PlanRow;

  it('shows the running session before the next one, and nothing of those that are over', () => {
    expect(nextSession([row('planned', '2026-06-02'), row('planned', '2026-06-01')])?.day).toBe('2026-06-01');
    expect(nextSession([row('planned', '2026-06-01'), row('running', '2026-07-01')])?.day).toBe('2026-07-01');
    expect(nextSession([row('done', '2026-06-01'), row('cancelled', '2026-06-01')])).toBeNull();
  });

  it('says when the rig itself is due', () => {
    const unit = (kind: string) => ({ name: 'Warden', reasons: [{ kind, text: '' }] }) as unknown as DueUnit;
    expect(dueSentence([])).toBe('');
    expect(dueSentence([unit('repair')])).toBe('1 unit is due for another test.');
    expect(dueSentence([unit('repair'), unit('control-due')])).toContain(
      '2 units are due for another test; the rig is due',
    );
  });
});

describe('the rig in words', () => {
  it('says what a calibration gives, with unit and spread', () => {
    const base = { id: '1', day: '2026-01-01', fedIn: 94, gainDb: 30, read: -18, clip: null, note: '' };
    expect(resultText({ ...base, kind: 'loopback', result: 5.4, uncertainty: null })).toBe('5.400 ms round trip');
    expect(resultText({ ...base, kind: 'electrical', result: 14, uncertainty: 0.05 })).toBe(
      '14.00 ±0.05 dBu at full scale and 0 dB of gain',
    );
    expect(resultText({ ...base, kind: 'sound-level', result: -48, uncertainty: 0.17 })).toContain(
      '−48.00 ±0.17 dBFS at 94 dB SPL',
    );
  });
  it('draws history, limits and today on one scale', () => {
    const row = rowOf({
      quantity: 'noiseReSpeechA',
      verdict: 'off',
      today: -64,
      usual: -70,
      offset: 6,
      offsetUncertainty: 0.5,
      spread: 0.4,
      limit: 1.5,
      found80: 2,
      count: 2,
      history: [
        { day: '2026-01-01', rig: null, value: -70.2 },
        { day: '2026-02-01', rig: null, value: -69.8 },
      ],
    });
    expect(row).toMatchObject({ today: '−64.0 dB(A)', usual: '−70.0', offset: '+6.0', limit: '±1.5' });
    expect(row.todayY).toBeLessThan(row.band?.top ?? 0);
    expect(row.dots).toHaveLength(2);
    expect(row.dots[0].y).toBeGreaterThan(row.dots[1].y);
  });
});

describe('settings of a take', () => {
  it('stand in one line, and a gain that is missing is said', () => {
    const noted = takeSettingsSchema.parse({ gainDb: 36, distanceM: 0.15, angleDeg: 0, pad: '−10', phantom: true, voice: 'high' }); // prettier-ignore
    expect(settingsLine(noted)).toBe('36.0 dB gain · 15.0 cm · 0° · pad −10 · phantom power on · voice high');
    expect(settingsLine(takeSettingsSchema.parse({ phantom: false }))).toBe('gain not noted');
  });

  it('differ in an angle only where the step has one', () => {
    const bare: Slot = {
      ...slot([]),
      lastSettings: [{ step: SILENCE.id, day: '2026-04-01', settings: { gainDb: 36, angleDeg: 0 } }],
    };
    const now = takeSettingsSchema.parse({ gainDb: 36 });
    expect(differences(bare, SILENCE, now)?.texts).toEqual([]);
    const turned = { ...bare, lastSettings: [{ ...bare.lastSettings[0], step: SPEECH.id }] };
    expect(differences(turned, SPEECH, { ...now, angleDeg: 45 })?.texts).toEqual(['angle 0° then, 45° now']);
  });

  it('of the next take begin with those of the newest one, whatever became of it', () => {
    const turn = slot([
      take(1, SPEECH, 'kept', { settings: takeSettingsSchema.parse({ gainDb: 30 }) }),
      take(2, SPEECH, 'retaken', { settings: takeSettingsSchema.parse({ gainDb: 26 }) }),
    ]);
    expect(startingSettings(turn, SPEECH).gainDb).toBe(26);
  });
});

describe('files from elsewhere', () => {
  const clip = { ...take(1, SPEECH, 'open').clip };
  const file = (name: string, step: string | null, taken: SlotTake | null = null) => ({
    name,
    clip: { ...clip, sha256: name },
    step,
    byHand: false,
    taken,
  });
  const proposal = (name: string, step: string | null): MatchProposal => ({
    name,
    clip: { ...clip, sha256: name },
    step,
    content: 'passage',
    reasons: [],
    doubts: [],
    certainty: 1,
    integratedLufs: -23,
  });

  it('keep the step that a person has set, and that of a take that was taken over', () => {
    const proposals = [proposal('a', 'silence'), proposal('b', 'silence')];
    expect(proposed(file('a', 'speech'), proposals).step).toBe('silence');
    expect(proposed({ ...file('a', 'speech'), byHand: true }, proposals).step).toBe('speech');
    expect(proposed(file('a', 'speech', take(1, SPEECH, 'kept')), proposals).step).toBe('speech');
    expect(proposed(file('c', 'speech'), proposals).step).toBe('speech');
  });

  it('exchange their steps, and are to be confirmed anew', () => {
    const files = [file('a', 'speech', take(1, SPEECH, 'kept')), file('b', 'rear'), file('c', 'silence')];
    expect(exchanged(files, files[0], files[1]).map((f) => [f.step, f.taken, f.byHand])).toEqual([
      ['rear', null, true],
      ['speech', null, true],
      ['silence', null, false],
    ]);
  });
});

describe('marks of cuts', () => {
  const marks = [
    { startS: 1, endS: 4 },
    { startS: 10, endS: 12 },
  ];

  it('are pulled within the recording, and never turn round', () => {
    expect(pulled(marks, 0, 'startS', -3, 20)[0]).toEqual({ startS: 0, endS: 4 });
    expect(pulled(marks, 0, 'startS', 9, 20)[0]).toEqual({ startS: 3.9, endS: 4 });
    expect(pulled(marks, 1, 'endS', 99, 20)).toEqual([marks[0], { startS: 10, endS: 20 }]);
  });

  it('get one more in the widest gap, and lose one', () => {
    expect(withStretch(marks, 20)).toEqual([...marks, { startS: 12, endS: 20 }]);
    expect(withStretch(marks, 13)?.[1]).toEqual({ startS: 4, endS: 10 });
    expect(withStretch([{ startS: 0, endS: 20 }], 20)).toBeNull();
    expect(withoutStretch(marks, 0)).toEqual([marks[1]]);
  });
});

describe('the control unit of a plan', () => {
  const rig = (since: string, controlUnit: string | null): Rig => ({
    id: since,
    document: rigDocumentSchema.parse({ name: 'Desk', since, controlUnit }),
    runs: 0,
    calibrations: [],
  });
  const unit = { id: '7', maker: 'Oarlock', model: 'Purser', label: 'A', category: 'microphone' } as const;
  const plan = { rig: 'Desk', day: '2026-05-02', category: 'microphone' } as const;

  it('is that of the rig as it stood on the day', () => {
    const rigs = [rig('2026-06-01', null), rig('2026-01-01', '7')];
    expect(controlOf(plan, rigs, [unit])).toEqual({ name: 'Oarlock Purser · A' });
    expect(controlOf({ ...plan, day: '2026-06-02' }, rigs, [unit])).toMatchObject({
      reason: expect.stringMatching(/has no control unit/) as string,
    });
  });

  it('is not there for a reason that is said, never dropped without a word', () => {
    const reason = (change: Partial<Parameters<typeof controlOf>[0]>, rigs = [rig('2026-01-01', '7')]): string => {
      const found = controlOf({ ...plan, ...change }, rigs, [unit]);
      return 'reason' in found ? found.reason : '';
    };
    expect(reason({ rig: null })).toMatch(/no rig is chosen/);
    expect(reason({ day: '2025-12-31' })).toMatch(/not noted yet/);
    expect(reason({ category: 'interface' })).toMatch(/another kind/);
  });
});

describe('a protocol that is being written', () => {
  it('is copied as a first version of its own, under a name that is free', () => {
    const step = { ...emptyProtocol().steps[0], comparable: { withPrevious: false, reason: 'another room' } };
    const model = { ...emptyProtocol(), id: 'desk', version: 4, changes: 'new mic stand', steps: [step] };
    expect(copyOf(model, ['desk'])).toMatchObject({ id: 'desk-copy', version: 1, changes: '' });
    expect(copyOf(model, ['desk', 'desk-copy', 'desk-copy-2']).id).toBe('desk-copy-3');
    expect(copyOf(model, []).steps[0].comparable).toBeNull();
  });

  it('takes an emptied length as no limit, and brings nothing back that was emptied', () => {
    const now = { least: 5, most: 40 };
    expect(withLength(now, { least: 8 })).toEqual({ least: 8, most: 40 });
    expect(withLength(now, { least: null })).toEqual({ least: 0, most: 40 });
    expect(withLength(now, { most: null })).toEqual({ least: 5, most: 36_000 });
    expect(withLength({ least: 0, most: 40 }, { most: null })).toBeNull();
    expect(withLength(null, { least: 5 })).toEqual({ least: 5, most: 36_000 });
  });

  it('has one limit per check, and the usual one again once it is emptied', () => {
    const one = withCheck([], 'unit', 4);
    expect(withCheck(one, 'unit', 5)).toEqual([{ check: 'unit', limit: 5 }]);
    expect(withCheck(withCheck(one, 'hum', 9), 'unit', null)).toEqual([{ check: 'hum', limit: 9 }]);
  });
});

describe('fields that hold what was not understood', () => {
  it('stop whatever would be saved, and the first is brought into view', () => {
    const refusals = new Refusals();
    expect(refusals.stop()).toBe(false);
    let looked = '';
    const [a, b] = ['a', 'b'].map((name) => ({ focus: () => void (looked = name) }));
    refusals.note(a);
    refusals.note(b);
    expect([refusals.stop(), looked]).toEqual([true, 'a']);
    refusals.forget(a);
    expect([refusals.stop(), looked]).toEqual([true, 'b']);
    refusals.forget(b);
    expect(refusals.stop()).toBe(false);
  });
});
