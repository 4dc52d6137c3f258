import { describe, expect, it } from 'vitest';
import { toldApart } from './told-apart';

describe('entries of one name and day', () => {
  it('are told apart by their order, and those that are alone need nothing', () => {
    const row = (id: string, name: string, day = '2026-05-02') => ({ id, name, day });
    const rows = [row('12', 'Session'), row('9', 'session '), row('10', 'Session'), row('1', 'Other'), row('2', 'Session', '2026-05-03')]; // prettier-ignore
    const apart = toldApart(rows);
    expect(rows.map((r) => apart.get(r.id))).toEqual(['3rd of 3', '1st of 3', '2nd of 3', '', '']);
    const many = toldApart(Array.from({ length: 12 }, (_, i) => row(String(i + 1), 'S')));
    expect([many.get('11'), many.get('12')]).toEqual(['11th of 12', '12th of 12']);
  });
});
