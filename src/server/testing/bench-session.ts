import { Readable } from 'node:stream';
import type { BenchFault } from '#contracts/bench';
import {
  newPlanSchema,
  takeSettingsSchema,
  type NewPlan,
  type PlannedUnit,
  type SlotTake,
} from '#contracts/session-plan';
import type { Application } from '../wiring';

// Sessions whose takes are played at the simulated bench.

export const UNIT = { maker: 'Oarlock', model: 'Purser', label: 'A', source: 'bought' } as const;
export const OTHER = { maker: 'Marlfen', model: 'Fen', label: 'A', source: 'bought' } as const;
export const DECIDED = { withUndecided: false } as const;
const GAINS = { even: 36, bright: 34 } as const;

/** A session of one unit. */
export const planOf = (change: Partial<NewPlan> = {}): NewPlan =>
  newPlanSchema.parse({
    title: 'A test session',
    day: '2026-05-02',
    category: 'microphone',
    protocol: 'desk-voice',
    protocolVersion: 3,
    units: [UNIT],
    withControl: false,
    ...change,
  });

/** How a take is played. */
export interface TakeChoice {
  readonly faults?: readonly BenchFault[];
  readonly microphone?: keyof typeof GAINS;
  readonly seed?: string;
  readonly angleDeg?: number;
  readonly playKind?: string;
  readonly notedGainDb?: number;
  readonly distanceM?: number;
}

/** Plays a take at the simulated bench and hands it to the booth. */
export async function record(
  app: Application,
  slotId: string,
  step: string,
  choice: TakeChoice = {},
): Promise<SlotTake> {
  const { protocol } = await app.planPages.view(await planIdOf(app, slotId));
  const sheet = protocol.steps.find((s) => s.id === step);
  const microphone = choice.microphone ?? 'even';
  const by = sheet?.gain?.rule === 'as-step' ? sheet.gain.byDb : 0;
  const gainDb = GAINS[microphone] + by;
  const wav = await app.bench.take({
    talker: 'high',
    room: 'loft',
    microphone,
    interface: 'new',
    faults: [...(choice.faults ?? [])],
    playKind: choice.playKind ?? sheet?.play?.kind ?? 'text',
    gainDb,
    distanceM: choice.distanceM ?? sheet?.distanceM ?? null,
    angleDeg: choice.angleDeg ?? sheet?.angleDeg ?? null,
    seed: `${step}/${choice.seed ?? '1'}`,
  });
  const clip = await app.ingest.ingest(Readable.from([wav]), `${step}.wav`, { keepPart: false });
  return app.booth.addTake(slotId, {
    step,
    clip: clip.sha256,
    settings: takeSettingsSchema.parse({ gainDb: choice.notedGainDb ?? gainDb, voice: 'high' }),
    note: '',
  });
}

async function planIdOf(app: Application, slotId: string): Promise<string> {
  for (const { id } of await app.planPages.list()) {
    if ((await app.planPages.view(id)).slots.some((s) => s.id === slotId)) return id;
  }
  throw new Error('no plan has this slot');
}

export const checksOf = (take: SlotTake): string[] => take.findings.map((f) => f.check);

/** A unit with a past: passage in front and behind, and silence, kept and made a run. */
export async function withHistory(
  app: Application,
  unit: Omit<PlannedUnit, 'dueBack'> = UNIT,
  microphone: keyof typeof GAINS = 'even',
): Promise<void> {
  // What is usual takes several readings.
  for (const [day, steps] of [
    ['2026-03-01', ['speech']],
    ['2026-03-15', ['speech']],
    ['2026-04-01', ['speech', 'silence', 'rear']],
  ] as const) {
    const [slot] = (await app.plans.add(planOf({ units: [{ ...unit, dueBack: null }], day }))).slots;
    for (const step of steps) {
      const take = await record(app, slot.id, step, { microphone, seed: `history ${day}` });
      await app.booth.decide(take.id, { state: 'kept', overruled: [] });
    }
    await app.booth.finish(slot.id, DECIDED);
  }
}
