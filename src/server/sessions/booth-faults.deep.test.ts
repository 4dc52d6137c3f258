import { expect, it } from 'vitest';
import { testApplication } from '../testing/application';
import { checksOf, planOf, record, withHistory, type TakeChoice } from '../testing/bench-session';

it('holds every injected fault against the right check, and nothing against a sound take', async () => {
  const app = await testApplication();
  await withHistory(app);
  const [slot] = (await app.plans.add(planOf())).slots;
  const sound = await record(app, slot.id, 'speech', { seed: 'sound' });
  expect([sound.verdict, sound.findings]).toEqual(['keep', []]);
  const silence = await record(app, slot.id, 'silence', { seed: 'sound' });
  expect([silence.verdict, silence.findings]).toEqual(['keep', []]);
  const rear = await record(app, slot.id, 'rear', { seed: 'sound' });
  expect([rear.verdict, rear.findings]).toEqual(['keep', []]);

  const expected: [string, TakeChoice, string][] = [
    ['speech', { faults: ['clip'] }, 'clipped'],
    ['speech', { faults: ['gap'] }, 'drop-outs'],
    ['speech', { faults: ['car'] }, 'event'],
    ['speech', { faults: ['wrong-side'] }, 'side'],
    ['rear', { faults: ['wrong-side'] }, 'side'],
    ['silence', { faults: ['hum'] }, 'hum'],
    ['silence', { faults: ['radio'] }, 'interference'],
    ['silence', { faults: ['car'] }, 'silence'],
    ['silence', { playKind: 'text' }, 'silence'],
    ['speech', { playKind: 'phrase' }, 'passage'],
    ['speech', { playKind: 'silence' }, 'passage'],
    ['speech', { notedGainDb: 46 }, 'placement'],
    ['speech', { distanceM: 0.6 }, 'placement'],
  ];
  for (const [step, choice, check] of expected) {
    const take = await record(app, slot.id, step, { ...choice, seed: JSON.stringify(choice) });
    expect(checksOf(take), `${step} ${JSON.stringify(choice)}: ${JSON.stringify(take.findings)}`).toContain(check);
    await app.booth.decide(take.id, { state: 'retaken', overruled: [] });
  }
}, 240_000);
