import { describe, expect, it } from 'vitest';
import type { Clip } from '#contracts/clip';
import {
  besideOthers,
  matched,
  documentOf,
  emptyDraft,
  newFile,
  nextUnit,
  withChannels,
  withSetting,
  type DraftFile,
} from './draft';

const file = (name: string, step: string | null, settings: DraftFile['settings'] = {}): DraftFile => ({ ...newFile(name), step, gainDb: 40, settings }); // prettier-ignore
const words = (...files: readonly DraftFile[]): string[] => files.map((f) => besideOthers(f, files));

describe('several files of one step', () => {
  it('are repeats where nothing sets them apart', () => {
    expect(words(file('a.wav', 'speech'), file('b.wav', 'silence'))).toEqual(['', '']);
    expect(words(file('a.wav', 'speech'), file('b.wav', 'speech'))).toEqual([
      'one of 2 repeats: their mean and spread count',
      'one of 2 repeats: their mean and spread count',
    ]);
  });

  it('stand side by side where another voice is named: the first counts', () => {
    const [ada, bo, again] = words(
      file('a.wav', 'speech', { voice: 'Ada' }),
      file('b.wav', 'speech', { voice: 'Bo' }),
      file('c.wav', 'speech', { voice: 'ada' }),
    );
    expect(ada).toBe('voice Ada: what counts for the unit; one of 2 repeats: their mean and spread count');
    expect(bo).toBe('voice Bo: stands beside voice Ada');
    expect(again).toMatch(/^voice ada: what counts/);
  });

  it('are no repeats of one that was worked on', () => {
    const [raw, worked] = words(file('a.wav', 'speech'), file('b.wav', 'speech', { processing: 'low-cut' }));
    expect(raw).toBe('');
    expect(worked).toMatch(/stands apart .* not ranked/);
  });

  it('go into the run with what was noted of each, and an emptied field notes nothing', () => {
    const named = withSetting(file('a.wav', 'speech', { pad: 'off' }), 'voice', 'Ada');
    expect(named.settings).toEqual({ pad: 'off', voice: 'Ada' });
    expect(withSetting(named, 'voice', ' ').settings).toEqual({ pad: 'off' });
    const { takes } = documentOf({ ...emptyDraft(), files: [named, file('b.wav', 'speech', { voice: 'Bo' })] });
    expect(takes.map((t) => [t.step, t.settings])).toEqual([
      ['speech', { pad: 'off', voice: 'Ada' }],
      ['speech', { voice: 'Bo' }],
    ]);
  });
});

describe('a recording of several channels', () => {
  const clip = (name: string): Clip => ({ name, sha256: name }) as Clip;

  it('becomes a row for each, with what was noted of all, and no step yet', () => {
    const rows = withChannels([file('all.wav', 'speech', { voice: 'Ada' }), file('b.wav', 'silence')], 'all.wav', [clip('known as this.wav'), clip('b.wav')]); // prettier-ignore
    expect(rows.map((f) => [f.name, f.step, f.gainDb, f.settings])).toEqual([
      ['all channel 1.wav', null, 40, { voice: 'Ada' }],
      ['all channel 2.wav', null, 40, { voice: 'Ada' }],
      ['b.wav', 'silence', 40, {}],
    ]);
  });

  it('goes on with the next unit: its files, day, protocol and rig, and nothing of the unit before', () => {
    const left = { ...file('c2.wav', null), clip: clip('c2.wav') };
    const draft = { ...emptyDraft(), maker: 'Oarlock', model: 'Purser', label: 'A', date: '2026-05-01', protocol: 'desk-voice', protocolVersion: 3, rig: 'Desk', amount: 99, files: [file('c1.wav', 'speech'), left, file('gone.wav', null)] }; // prettier-ignore
    expect(nextUnit(draft)).toEqual({ ...emptyDraft(), date: '2026-05-01', protocol: 'desk-voice', protocolVersion: 3, rig: 'Desk', files: [left] }); // prettier-ignore
  });
});

it('files that name one step are takes of it; a step that somebody gave away counts as named', () => {
  const steps = [
    { id: 'speech', title: 'Speech', fileHints: ['speech'] },
    { id: 'silence', title: 'Silence', fileHints: ['silence'] },
  ] as unknown as Parameters<typeof matched>[1];
  const by = (...files: readonly DraftFile[]) => matched(files, steps).map((f) => [f.step, f.reason]);
  expect(by(newFile('speech-ada.wav'), newFile('speech-bo.wav'), newFile('x.wav'))).toEqual([
    ['speech', 'the name says "speech"'],
    ['speech', 'the name says "speech": another take of it'],
    ['silence', 'by the order of the names'],
  ]);
  const said = { ...file('first.wav', 'speech'), stepBy: 'hand' as const, reason: 'chosen by you' };
  expect(by(said, newFile('speech.wav'))[1]).toEqual(['speech', 'the name says "speech": another take of it']);
});
