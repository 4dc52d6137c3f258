import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readDay } from './read-day';

const TODAY = '2026-03-01';
const read = (text: string): string | null => {
  const reading = readDay(text, TODAY);
  return reading.isUnderstood ? reading.value : `refused: ${reading.why}`;
};

describe('a day that is typed', () => {
  it('is read in every way that has one meaning', () => {
    expect(read('2026-05-02')).toBe('2026-05-02');
    expect(read(' 2026-5-2 ')).toBe('2026-05-02');
    expect(read('2.5.2026')).toBe('2026-05-02');
    expect(read('02. 05. 2026')).toBe('2026-05-02');
    expect(read('2 May 2026')).toBe('2026-05-02');
    expect(read('2. september 2026')).toBe('2026-09-02');
    expect(read('12 Sept 2026')).toBe('2026-09-12');
    expect(read('Today')).toBe(TODAY);
    expect(read('yesterday')).toBe('2026-02-28');
    expect(read('   ')).toBeNull();
  });

  it('knows every month by its whole name and by three letters of it', () => {
    const names = 'January February March April May June July August September October November December'.split(' ');
    names.forEach((name, i) => {
      const day = `2026-${String(i + 1).padStart(2, '0')}-09`;
      for (const text of [`9 ${name} 2026`, `9.  ${name.slice(0, 3)}.,  2026`, `09 ${name.toUpperCase()} 2026`])
        expect(read(text), text).toBe(day);
    });
    expect(read('9 Jun. 2026')).toBe('2026-06-09');
    expect(read('9 Juni 2026')).toContain('refused');
    expect(read('9 Apt 2026')).toContain('refused');
  });

  it('is refused where it could be two, and says what is taken', () => {
    const doubtful = ['3/4/2026', '03-04-2026', '3.4.26', '2026', 'May 2026', 'next week', '20260502'];
    const longer = ['on 2026-05-02', '2026-05-02 or so', 'x2.5.2026', '2.5.20261', 'on 2 May 2026', '2 May 20261'];
    for (const text of [...doubtful, ...longer, '2 Mai 2026', '2 sept. of 2026', '12026-05-02'])
      expect(read(text), text).toMatch(/^refused: .*understood in one way only.*2026-05-02/);
  });

  it('is refused where no calendar has it, rather than moved to the next one', () => {
    for (const text of ['2026-02-29', '31.6.2026', '2026-13-01', '0.5.2026', '2026-00-10'])
      expect(read(text), text).toContain('on no calendar');
    expect(read('2024-02-29')).toBe('2024-02-29');
  });

  it('is refused outside the years that the archive keeps', () => {
    expect(read('1899-12-31')).toContain('not between 1900-01-01 and 2199-12-31');
    expect(read('2200-01-01')).toContain('not between');
    expect(read('1900-01-01')).toBe('1900-01-01');
    expect(read('2199-12-31')).toBe('2199-12-31');
  });

  it('comes back as it was, for every day', () => {
    const days = fc.date({ min: new Date('1900-01-01'), max: new Date('2199-12-31'), noInvalidDate: true });
    fc.assert(
      fc.property(days, (at) => {
        const day = at.toISOString().slice(0, 10);
        const [y, m, d] = day.split('-').map(Number);
        expect(read(day)).toBe(day);
        expect(read(`${d}.${m}.${y}`)).toBe(day);
      }),
    );
  });
});
