import { expect, it } from 'vitest';
import { newPlanSchema } from '#contracts/session-plan';
import { planRow } from './plan-row';

const unit = (model: string, dueBack: string | null) => ({
  maker: 'Oarlock',
  model,
  label: 'A',
  source: 'lent',
  dueBack,
});
const plan = (units: object[]) =>
  newPlanSchema.parse({
    title: 'Monday',
    day: '2026-05-04',
    category: 'field-microphone',
    protocol: 'field-voice',
    protocolVersion: 2,
    units,
    needs: [
      { what: 'batteries', isThere: false },
      { what: 'wind', isThere: true },
    ],
  });

it('say what is missing, and which loan has to go back first', () => {
  const units = [unit('Purser', '2026-06-02'), unit('Bosun', null), unit('Sexton', '2026-05-20')];
  expect(planRow('7', 'running', plan(units), { steps: 12, kept: 3 })).toEqual({
    id: '7',
    title: 'Monday',
    day: '2026-05-04',
    status: 'running',
    category: 'field-microphone',
    protocol: 'field-voice',
    protocolVersion: 2,
    units: ['Oarlock Purser · A', 'Oarlock Bosun · A', 'Oarlock Sexton · A'],
    steps: 12,
    kept: 3,
    missing: ['batteries'],
    firstDueBack: '2026-05-20',
  });
});

it('know of nothing kept where nothing was begun, and of no loan where there is none', () => {
  const row = planRow('8', 'planned', plan([unit('Bosun', null)]), undefined);
  expect(row).toMatchObject({ steps: 0, kept: 0, firstDueBack: null });
});
