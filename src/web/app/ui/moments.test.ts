import { describe, expect, it } from 'vitest';
import { momentDay, momentText } from './format';

describe('a moment that the server notes', () => {
  it('is shown by the clock and the calendar of whoever looks', () => {
    // Whatever the zone is: what is shown is what this machine's clock said then.
    for (const at of [new Date(2026, 2, 1, 0, 5), new Date(2026, 2, 1, 23, 59), new Date(2026, 6, 9, 12, 30)]) {
      const [h, m] = [at.getHours(), at.getMinutes()].map((n) => String(n).padStart(2, '0'));
      const day = `2026-0${at.getMonth() + 1}-0${at.getDate()}`;
      expect(momentDay(at.toISOString())).toBe(day);
      expect(momentText(at.toISOString())).toBe(`${day} ${h}:${m}`);
    }
  });
});
