import { describe, expect, it } from 'vitest';
import { besideOthers, documentOf, emptyDraft, newFile, withSetting, type DraftFile } from './draft';

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
