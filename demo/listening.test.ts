import { describe, expect, it } from 'vitest';
import { HEARD_WORDS } from '#core/rules/listening/vocabulary';
import { newTestSchema } from '#contracts/listening';
import {
  DEMO_COMPARE,
  DEMO_EARS,
  DEMO_FAIR,
  DEMO_LISTENERS,
  DEMO_OPEN_TEST,
  DEMO_TESTS,
  DEMO_WORDS,
} from './listening';
import { DEMO_PANEL, DEMO_PANEL_WORDS } from './live-panel';
import { DEMO_UNITS } from './scenario';

/** Days on which a unit, "model" or "model/label", was recorded. */
function daysOf(unit: string): string[] {
  const [model, label] = unit.split('/');
  const found = DEMO_UNITS.filter((u) => u.model === model && (label === undefined || u.label === label));
  return found.flatMap((u) => u.dates);
}

describe('the listening of the demo', () => {
  it.each(DEMO_TESTS.map((t) => [t.test.name, t] as const))(
    '%s: hears units that had been recorded by then, by known ears',
    (_, plan) => {
      // prettier-ignore
      for (const unit of [...plan.units, ...(plan.yardstick ? [plan.yardstick] : [])])
      expect([unit, daysOf(unit).some((day) => day <= plan.day)]).toEqual([unit, true]);
      for (const listener of plan.listeners) expect(DEMO_LISTENERS[listener]).toBeDefined();
      const takes = plan.units.map((_unit, i) => String(i + 1));
      expect(newTestSchema.safeParse({ ...plan.test, takes }).success).toBe(true);
    },
  );

  it('spans three years, every design, and leaves one test open', () => {
    const years = new Set(DEMO_TESTS.map((t) => t.day.slice(0, 4)));
    expect([...years]).toEqual(['2023', '2024', '2025']);
    expect(new Set(DEMO_TESTS.map((t) => t.test.design)).size).toBe(6);
    for (const unit of [...DEMO_OPEN_TEST.units, ...DEMO_COMPARE.units]) expect(daysOf(unit)).not.toEqual([]);
  });

  it('holds a panel of units of the scenario, by known ears, and says words about its own', () => {
    expect(newTestSchema.safeParse({ ...DEMO_PANEL.test, units: ['1', '2', '3', '4', '5'] }).success).toBe(true);
    for (const unit of DEMO_PANEL.units) expect(daysOf(unit)).not.toEqual([]);
    for (const listener of DEMO_PANEL.listeners) expect(DEMO_LISTENERS[listener]).toBeDefined();
    for (const { unit, by } of DEMO_PANEL_WORDS) {
      expect(unit).toBeLessThan(DEMO_PANEL.units.length);
      expect(by ?? 0).toBeLessThan(DEMO_PANEL.listeners.length);
    }
  });

  it('names only units of the scenario, and words of the vocabulary', () => {
    const models = new Set(DEMO_UNITS.map((u) => u.model));
    for (const model of [...Object.keys(DEMO_EARS), ...Object.keys(DEMO_WORDS)]) expect(models.has(model)).toBe(true);
    for (const words of Object.values(DEMO_WORDS)) for (const word of words) expect(HEARD_WORDS).toContain(word);
    for (const [better, worse] of DEMO_FAIR.pairs)
      for (const unit of [better, worse]) expect(daysOf(unit).some((day) => day <= DEMO_FAIR.day)).toBe(true);
  });
});
