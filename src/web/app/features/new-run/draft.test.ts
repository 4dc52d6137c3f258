import { describe, expect, it } from 'vitest';
import {
  asNamed,
  documentOf,
  emptyDraft,
  fillFromDocument,
  loadDraft,
  matched,
  newFile,
  saveDraft,
  startingProtocol,
  whatIsMissing,
  contentQuestion,
  withContent,
  withGain,
  withStep,
  type Draft,
  type DraftFile,
} from './draft';
import { emptyProtocol } from '../protocols/protocol-draft';
import { protocolSchema } from '#contracts/protocol';
import { runDocumentSchema } from '#contracts/run-document';
import { step } from '../../testing/rows';

describe('new run', () => {
  const clip = {
    sha256: 'a'.repeat(64),
    bytes: 1,
    name: 'x',
    format: { container: 'wav', encoding: 'pcm24', sampleRateHz: 48_000, channels: 1, durationS: 3 },
    salvaged: null,
    origin: null,
    channelOf: null,
  } as const;
  const file = (name: string, step: string | null): DraftFile => ({
    name,
    clip,
    step,
    reason: '',
    stepBy: 'match',
    gainDb: 40,
    dial: '',
    gainFrom: null,
    isGainTouched: true,
    distanceM: null,
    angleDeg: null,
  });
  const steps = [
    step({ id: 'speech', title: 'Passage', fileHints: ['speech'], distanceM: 0.15, angleDeg: 0 }),
    step({ id: 'rear', title: 'From behind', fileHints: ['rear', 'back'], distanceM: 0.15, angleDeg: 180 }),
    step({ id: 'silence', title: 'Silence', fileHints: ['silence'] }),
  ];
  const full = (): Draft => ({
    ...emptyDraft(),
    maker: 'Oarlock',
    model: 'Purser',
    label: 'A',
    amount: 129,
    protocol: 'desk-voice',
    protocolVersion: 3,
    points: { sound: 4, build: null },
    files: [file('a.wav', 'speech'), file('b.wav', null)],
  });

  describe('steps told from what files hold', () => {
    const open = (name: string, step: string | null = null) => ({ ...file(name, step), stepBy: 'match' as const });
    const draft = (...files: Draft['files']): Draft => ({ ...full(), files });
    const proposed = (name: string, to: string | null, doubts: string[] = []) => ({ name, step: to, reasons: ['it holds a long reading', 'it is number 1 in order'], doubts }); // prettier-ignore

    it('are asked for stored files of which nobody has said it, and for steps that are free', () => {
      const sent = { ...open('c.wav'), clip: null };
      const question = contentQuestion(draft(open('a.wav', 'rear'), { ...file('b.wav', 'speech'), stepBy: 'hand' }, sent), steps); // prettier-ignore
      expect(question).toMatchObject({ protocol: 'desk-voice', protocolVersion: 3, steps: ['rear', 'silence'] });
      expect(question?.clips.map((c) => c.name)).toEqual(['a.wav']);
      // What was told from what they hold is asked again, and its step is free.
      expect(contentQuestion(draft({ ...open('a.wav', 'rear'), stepBy: 'content' }), steps)?.steps).toHaveLength(3);
      for (const stepBy of ['hand', 'document'] as const)
        expect(contentQuestion(draft({ ...file('b.wav', null), stepBy }), steps)).toBeNull();
      expect(contentQuestion(draft(sent), steps)).toBeNull();
      expect(contentQuestion(draft(open('a.wav')), [])).toBeNull();
    });

    it('bring distance and angle with them, and say why', () => {
      const [a, b] = withContent([open('a.wav'), open('b.wav', 'silence')], [proposed('a.wav', 'rear', ['it lasts 50.0 s; the step allows 40 s']), proposed('b.wav', null)], steps); // prettier-ignore
      expect(a).toMatchObject({ step: 'rear', stepBy: 'content', angleDeg: 180, distanceM: 0.15 });
      expect(a.reason).toBe(
        'it holds a long reading, it is number 1 in order; but it lasts 50.0 s; the step allows 40 s',
      );
      expect(b).toMatchObject({ step: null, stepBy: 'content', distanceM: null });
    });

    it('leave alone what somebody has said meanwhile, and give no step twice', () => {
      const said = { ...file('b.wav', 'rear'), stepBy: 'hand' as const };
      const [a, b] = withContent([open('a.wav', 'speech'), said], [proposed('a.wav', 'rear'), proposed('b.wav', 'silence')], steps); // prettier-ignore
      expect(b).toEqual(said);
      expect(a).toMatchObject({ step: null, reason: 'the step it seems to hold has been given to another file' });
    });

    it('give a step that the protocol repeats again, also beside one that was given by hand', () => {
      const repeated = [...steps.slice(0, 2), { ...steps[2], repeats: 3 }];
      const said = { ...file('b.wav', 'silence'), stepBy: 'hand' as const };
      expect(contentQuestion({ ...full(), files: [said, open('a.wav')] }, repeated)?.steps).toContain('silence');
      const [, a, c] = withContent([said, open('a.wav'), open('c.wav')], [proposed('a.wav', 'silence'), proposed('c.wav', 'silence')], repeated); // prettier-ignore
      expect([a.step, c.step]).toEqual(['silence', 'silence']);
      expect(contentQuestion({ ...full(), files: [said, open('a.wav')] }, steps)?.steps).not.toContain('silence');
    });

    it('are those of the protocol that is chosen: an answer for the one before is passed over', () => {
      const files = [open('a.wav', 'speech'), open('b.wav')];
      expect(withContent(files, [proposed('a.wav', 'walk'), proposed('b.wav', 'silence')], steps)).toEqual(files);
    });

    it('stay when more files come, as long as the protocol has them', () => {
      const told = { ...open('x.wav', 'rear'), stepBy: 'content' as const };
      expect(matched([told, open('speech.wav')], steps).map((f) => f.step)).toEqual(['rear', 'speech']);
      expect(matched([told], [steps[0]])[0]).toMatchObject({ step: 'speech', stepBy: 'match' });
    });
  });

  it('says what is still needed', () => {
    const nothing = ['maker', 'model', 'label', 'the protocol', 'at least one file with its step, or a table'];
    expect(whatIsMissing(emptyDraft(), [])).toEqual(nothing);
    expect(whatIsMissing(full(), steps)).toEqual([]);
    expect(
      whatIsMissing(
        { ...full(), files: [{ ...file('a.wav', 'speech'), clip: null, gainDb: null }, file('b.wav', 'speech')] },
        steps,
      ),
    ).toEqual(['uploads to finish', 'the gain of every take']);
    // A match of another protocol is no match.
    expect(whatIsMissing({ ...full(), files: [file('a.wav', 'walk')] }, steps)).toEqual([
      'a step of this protocol for a.wav',
    ]);
    const alike = [{ maker: 'Oarlock', model: 'Purser', label: 'a' }];
    expect(whatIsMissing(full(), steps, alike)).toEqual(['whether it is one of the units written alike']);
    expect(whatIsMissing({ ...full(), isAnother: 'Oarlock/Purser/A' }, steps, alike)).toEqual([]);
  });

  it('takes what stands at a dial instead of decibels, and gives it back with the settings', () => {
    const dial = { kind: 'dial', position: '50 %' } as const;
    const files = withGain([{ ...file('a.wav', 'speech'), settings: { pad: 'off' } }, newFile('b.wav')], 'a.wav', dial);
    expect(files.map((f) => [f.gainDb, f.dial, f.gainFrom])).toEqual([
      [null, '50 %', null],
      [null, '50 %', 'a.wav'],
    ]);
    expect(whatIsMissing({ ...full(), files }, steps)).toEqual([]);
    expect(documentOf({ ...full(), files }).takes[0]).toMatchObject({ gainDb: null, settings: { pad: 'off', dial: '50 %' } }); // prettier-ignore
  });

  it('copies a gain once it is typed whole, and only into rows that nobody has touched', () => {
    const fresh = ['a', 'b', 'c'].map((name) => newFile(`${name}.wav`));
    const typed = withGain(fresh, 'a.wav', { kind: 'dB', db: 30 });
    expect(typed.map((f) => [f.gainDb, f.gainFrom])).toEqual([
      [30, null],
      [30, 'a.wav'],
      [30, 'a.wav'],
    ]);
    const own = withGain(typed, 'b.wav', { kind: 'dB', db: 36 });
    expect(own.map((f) => f.gainDb)).toEqual([30, 36, 36]);
    // Emptied by hand stays empty; what was typed elsewhere is not copied over it.
    const emptied = withGain(own, 'c.wav', null);
    expect(withGain(emptied, 'a.wav', { kind: 'dB', db: 28 }).map((f) => f.gainDb)).toEqual([28, 36, null]);
  });

  it('copies a gain only as far as the protocol says that it is one', () => {
    const peaks = { rule: 'peaks', lowDbfs: -12, highDbfs: -9 } as const;
    const as = (step: string, byDb = 0) => ({ rule: 'as-step', step, byDb }) as const;
    const gains = [['without', peaks], ['silence-without', as('without')], ['close', as('silence-without', -12)], ['with', peaks], ['silence-with', as('with')]] as const; // prettier-ignore
    const rules = gains.map(([id, gain]) => ({ id, gain }));
    const files = gains.map(([id]) => ({ ...newFile(`${id}.wav`), step: id }));
    const first = withGain(files, 'silence-without.wav', { kind: 'dB', db: 50 }, rules);
    expect(first.map((f) => f.gainDb)).toEqual([50, 50, 38, null, null]);
    expect(withGain(first, 'with.wav', { kind: 'dB', db: 30 }, rules).map((f) => f.gainDb)).toEqual([50, 50, 38, 30, 30]); // prettier-ignore
    // Typed where the gain is turned down, the others lie above; of a dial it is not known how far.
    expect(withGain(files, 'close.wav', { kind: 'dB', db: 30 }, rules)[0].gainDb).toBe(42);
    expect(withGain(files, 'without.wav', { kind: 'dial', position: '7' }, rules).map((f) => f.dial)).toEqual(['7', '7', '', '', '']); // prettier-ignore
    expect(withGain(files, 'without.wav', { kind: 'dB', db: 5 }, rules)[2].gainDb).toBeNull();
    // What was copied before goes with the gain that it was copied from.
    const copied = withGain(files, 'without.wav', { kind: 'dB', db: 40 }, rules);
    const name = files.find((_, i) => copied[i].gainFrom !== null && copied[i].gainDb !== 40)?.name ?? '';
    for (const gain of [{ kind: 'dB', db: 5 }, { kind: 'dial', position: '7' }] as const)
      expect(withGain(copied, 'without.wav', gain, rules).find((f) => f.name === name)).toMatchObject({ gainDb: null, dial: '', gainFrom: null }); // prettier-ignore
  });

  it('matches anew for another protocol, and keeps what a person has said as long as there is such a step', () => {
    const files = ['speech.wav', 'back.wav', 'x.wav'].map(newFile);
    const first = matched(files, steps);
    expect(first.map((f) => f.step)).toEqual(['speech', 'rear', 'silence']);
    expect(first[1]).toMatchObject({ angleDeg: 180, stepBy: 'match' });
    const byHand = withStep(first, 'x.wav', 'silence', steps);
    const others = [step({ id: 'talk', title: 'Talk', fileHints: ['speech'], distanceM: 0.3 }), steps[2]];
    const again = matched(byHand, others);
    expect(again.map((f) => [f.step, f.distanceM])).toEqual([
      ['talk', 0.3],
      [null, null],
      ['silence', null],
    ]);
    expect(matched(byHand, [others[0]]).map((f) => f.step)).toEqual(['talk', null, null]);
  });

  it('starts with the protocol used last: here, else by anybody, in its newest version', () => {
    const version = (id: string, n: number, lastUsed: string | null) => ({
      protocol: protocolSchema.parse({ ...emptyProtocol(), id, version: n }),
      runs: 1,
      isFrozen: true,
      firstUsed: lastUsed,
      lastUsed,
    });
    const versions = [version('a', 1, '2026-03-01'), version('b', 1, '2026-04-01'), version('b', 2, null)];
    expect(startingProtocol(versions, 'microphone', null)).toEqual({ protocol: 'b', protocolVersion: 2 });
    const last = { category: 'microphone', protocol: 'a', rig: null, source: 'own', currency: 'EUR' } as const;
    expect(startingProtocol(versions, 'microphone', last)).toEqual({ protocol: 'a', protocolVersion: 1 });
    // Before anything was tested, the one that asks for most, in its newest version.
    const steps = (count: number) => Array.from({ length: count }, () => protocolSchema.shape.steps.element.parse({ id: 'x', title: 'X', instruction: 'Do it.' })); // prettier-ignore
    const unused = versions.map((v, i) => ({ ...v, lastUsed: null, protocol: { ...v.protocol, steps: steps(v.protocol.id === 'a' ? 3 : 1 + i) } })); // prettier-ignore
    expect(startingProtocol(unused, 'microphone', null)?.protocol).toBe('a');
    expect(startingProtocol(versions, 'booster', last)).toBeNull();
  });

  it('amounts to a sound run document; what is empty is missing, not zero', () => {
    const document = runDocumentSchema.parse(documentOf(full()));
    expect(document.takes).toEqual([{ step: 'speech', file: 'a.wav', gainDb: 40 }]);
    expect(document.points).toEqual([{ criterion: 'sound', value: 4 }]);
    expect(document.prices).toMatchObject([{ amount: 129, kind: 'street' }]);
    expect(documentOf({ ...full(), amount: null }).prices).toEqual([]);
  });

  it('is filled in from a run.json, and gives the same document back', () => {
    const document = runDocumentSchema.parse({
      ...documentOf(full()),
      date: '2026-05-02',
      prices: [
        { amount: 99, currency: 'EUR', kind: 'sale', date: '2026-04-01' },
        { amount: 129, currency: 'EUR', kind: 'street', date: '2026-05-01' },
      ],
      takes: [
        {
          step: 'rear',
          file: 'a.wav',
          gainDb: 38,
          distanceM: 0.2,
          angleDeg: 180,
          levelDbSpl: 94,
          windSpeedMs: 3,
          note: 'window open',
          settings: { pad: '−10', phantom: true },
          overruled: [{ check: 'level', what: 'soft', reason: 'whispered' }],
        },
      ],
      claims: [{ quantity: 'selfNoise', value: 14, unit: 'dB SPL(A)', condition: 'A-weighted' }],
      inputFullScaleDbu: 12,
      rig: 'Desk',
      purpose: 'opening',
      tables: [{ step: 'latency', cells: [{ row: '48', column: '64', value: 5.4, source: 'typed' }] }],
      points: [{ criterion: 'build', value: 3, reason: 'solid' }],
    });
    const { draft, notes } = fillFromDocument(
      { ...emptyDraft(), files: [file('a.wav', null), file('extra.wav', 'speech')] },
      document,
    );
    expect(notes).toEqual(['Filled in from run.json.']);
    expect(documentOf(draft)).toEqual(document);
    expect(draft.files[1].step).toBeNull();
    const early = fillFromDocument(emptyDraft(), document);
    expect(early.notes[1]).toMatch(/not here yet: a\.wav/);
    // The files may come after their run.json.
    expect(asNamed([newFile('a.wav')], early.draft.named)[0]).toMatchObject({
      step: 'rear',
      gainDb: 38,
      angleDeg: 180,
    });
    expect(fillFromDocument(full(), { format: 'x' })).toEqual({
      draft: full(),
      notes: [expect.stringMatching(/run\.json was not used/)],
    });
  });

  it('keeps of a run.json what can be read, and names the rest', () => {
    const raw = {
      ...documentOf(full()),
      claims: [
        { quantity: 'selfNoise', value: 14, unit: 'dB SPL(A)', condition: 'A-weighted' },
        { quantity: 'sensitvity', value: -40, unit: 'dBV/Pa' },
      ],
      source: 'found',
      colour: 'red',
    };
    const { draft, notes } = fillFromDocument({ ...emptyDraft(), files: [file('a.wav', null)] }, raw);
    expect(draft.claims.map((c) => c.quantity)).toEqual(['selfNoise']);
    expect([draft.maker, draft.source, draft.files[0].step]).toEqual(['Oarlock', 'bought', 'speech']);
    expect(notes.join('\n')).toMatch(/entry 2 of “claims” \(sensitvity\) was left out: quantity/);
    expect(notes.join('\n')).toMatch(/“source” was left out/);
    expect(notes.join('\n')).toMatch(/“colour” was left out: a run has no such field/);
  });

  it('survives a reload, and a draft of another version does no harm', () => {
    const kept = new Map<string, string>();
    const storage = {
      getItem: (k: string) => kept.get(k) ?? null,
      setItem: (k: string, v: string) => void kept.set(k, v),
    };
    expect(loadDraft(storage)).toEqual(emptyDraft());
    saveDraft(storage, full());
    expect(loadDraft(storage)).toEqual(full());
    for (const key of kept.keys()) kept.set(key, '{"maker":1}');
    expect(loadDraft(storage)).toEqual(emptyDraft());
  });
});
