import { expect, it } from 'vitest';
import { newPlanSchema } from '#contracts/session-plan';
import { testApplication } from '../testing/application';

it('a session that is started in the evening west of Greenwich is of that day', async () => {
  const app = await testApplication({ zone: 'America/New_York', now: () => new Date('2026-05-03T02:30:00Z') });
  const { row } = await app.plans.add(
    newPlanSchema.parse({
      title: 'An evening',
      day: '2026-04-30',
      category: 'microphone',
      protocol: 'desk-voice',
      protocolVersion: 3,
      units: [{ maker: 'Oarlock', model: 'Purser', label: 'A', source: 'bought' }],
    }),
  );
  const started = await app.plans.move(row.id, 'running');
  expect(started.row.day).toBe('2026-05-02');
});
