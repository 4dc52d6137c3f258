import { expect, it } from 'vitest';
import { newPlanSchema } from '#contracts/session-plan';
import type { Protocol } from '#contracts/protocol';
import { controlProblem, planProblems } from './plan-problems';

const unit = (model: string) => ({ maker: 'Oarlock', model, label: 'A', source: 'own' });
const PLAN = newPlanSchema.parse({
  title: 'Monday',
  day: '2026-05-04',
  category: 'microphone',
  protocol: 'desk-voice',
  protocolVersion: 2,
  units: [unit('Purser'), unit('Bosun')],
  controlSteps: ['silence'],
  withControl: true,
});
const PROTOCOL = {
  name: 'Voice at a desk',
  category: 'microphone',
  alsoFor: ['field-microphone'],
  steps: [{ id: 'speech' }, { id: 'silence' }],
} as unknown as Protocol;
const fields = (change: object, protocol: Protocol | null = PROTOCOL) =>
  planProblems({ ...PLAN, ...change }, protocol).map((p) => p.field);

it('a sound plan has none', () => {
  expect(planProblems(PLAN, PROTOCOL)).toEqual([]);
  expect(fields({ category: 'field-microphone' })).toEqual([]);
  expect(fields({ controlSteps: [] })).toEqual([]);
});

it('name the field: no such version, another kind, a unit twice, a step that the protocol has not', () => {
  expect(planProblems(PLAN, null)).toEqual([{ field: 'protocol', message: 'there is no version 2 of "desk-voice"' }]);
  expect(planProblems({ ...PLAN, category: 'booster' }, PROTOCOL)).toEqual([
    {
      field: 'category',
      message: '“Voice at a desk” is a protocol for microphone and field microphone, not for booster',
    },
  ]);
  // The second of two that are alike is the one to take out; another label is another unit.
  expect(fields({ units: [unit('Purser'), unit('Bosun'), unit('Purser')].map((u) => ({ ...u, dueBack: null })) })).toEqual(['units[2]']); // prettier-ignore
  expect(fields({ units: [unit('Purser'), { ...unit('Purser'), label: 'B' }] })).toEqual([]);
  expect(planProblems({ ...PLAN, controlSteps: ['speech', 'rear', 'clap'] }, PROTOCOL)).toEqual([
    { field: 'controlSteps', message: 'the protocol has no step rear, clap' },
  ]);
});

it('are all named at once', () => {
  expect(fields({ category: 'booster', units: [unit('Purser'), unit('Purser')], controlSteps: ['rear'] })).toEqual([
    'category',
    'units[1]',
    'controlSteps',
  ]);
});

it('a control run wants a rig, on it a control unit, of the kind that is tested', () => {
  const rig = { name: 'Desk', control: { category: 'microphone' } };
  expect(controlProblem(PLAN, rig)).toBeNull();
  expect(controlProblem({ ...PLAN, withControl: false }, null)).toBeNull();
  expect(controlProblem(PLAN, null)?.message).toContain('no rig is noted for 2026-05-04');
  expect(controlProblem(PLAN, { ...rig, control: null })?.message).toContain('"Desk" has no control unit');
  expect(controlProblem(PLAN, { ...rig, control: { category: 'interface' } })).toEqual({
    field: 'withControl',
    message: 'the control unit of "Desk" is gear of another kind; plan without, or on another rig',
  });
});
