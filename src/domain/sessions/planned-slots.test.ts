import { expect, it } from 'vitest';
import { plannedUnitSchema } from '#contracts/session-plan';
import { plannedSlots } from './planned-slots';

const unit = (model: string) => plannedUnitSchema.parse({ maker: 'Oarlock', model, label: 'A', source: 'bought' });
const UNITS = ['Purser', 'Bosun', 'Steward', 'Cooper', 'Sexton', 'Tinker'].map(unit);
const CONTROL = unit('Reference');
const PROTOCOL = { steps: [{ id: 'speech' }, { id: 'silence' }, { id: 'rear' }] } as Parameters<typeof plannedSlots>[1];
const plan = (change: object = {}) => ({ units: UNITS, randomised: false, controlSteps: [], ...change });
const models = (slots: ReturnType<typeof plannedSlots>): string[] => slots.map((s) => s.unit.model);

it('are the units in their order, each through all steps', () => {
  const slots = plannedSlots(plan(), PROTOCOL, null, 'a');
  expect(models(slots)).toEqual(UNITS.map((u) => u.model));
  expect(slots.every((s) => s.purpose === 'unit' && s.steps.join() === 'speech,silence,rear')).toBe(true);
});

it('begin and end with the control unit, through its steps in the order of the protocol', () => {
  const slots = plannedSlots(plan({ controlSteps: ['rear', 'speech'] }), PROTOCOL, CONTROL, 'a');
  expect(slots.map((s) => s.purpose)).toEqual(['opening', ...UNITS.map(() => 'unit'), 'closing']);
  expect([slots[0], slots.at(-1)].map((s) => [s?.unit.model, s?.steps])).toEqual([
    ['Reference', ['speech', 'rear']],
    ['Reference', ['speech', 'rear']],
  ]);
  expect(plannedSlots(plan(), PROTOCOL, CONTROL, 'a')[0].steps).toEqual(['speech', 'silence', 'rear']);
});

it('are shuffled where that is asked for, the same way each time, the control unit staying outside', () => {
  const order = (seed: string) => models(plannedSlots(plan({ randomised: true }), PROTOCOL, CONTROL, seed));
  expect(order('a')).toEqual(order('a'));
  expect(new Set(['a', 'b', 'c', 'd'].map((s) => order(s).join())).size).toBeGreaterThan(1);
  expect([...order('a')].sort()).toEqual([...UNITS.map((u) => u.model), 'Reference', 'Reference'].sort());
  expect([order('b')[0], order('b').at(-1)]).toEqual(['Reference', 'Reference']);
});
