import { describe, expect, it } from 'vitest';
import { paletteActions } from './palette-actions';
import { row } from './testing/rows';

describe('what can be done from anywhere', () => {
  it('has a place for each thing a reviewer does, and none for what the unit cannot', () => {
    const labels = paletteActions([row({ id: '4' }), row({ id: '5', model: 'Winch', takes: 0, hasRules: false })]).map(
      (a) => a.label,
    );
    for (const words of [
      'New run',
      'price: Oarlock Purser',
      'Place by ear: Oarlock Purser',
      'Export Oarlock Purser',
      'Back up',
    ])
      expect(labels.filter((l) => l.includes(words)).length, words).toBeGreaterThan(0);
    expect(labels).not.toContain('Export Oarlock Winch · A');
    expect(labels).not.toContain('Give points: Oarlock Winch · A');
    expect(new Set(labels).size).toBe(labels.length);
  });
});
