import { protocolSchema, type Step } from '#contracts/protocol';
import { takeSettingsSchema, type Plan, type Slot, type SlotTake } from '#contracts/session-plan';

// A session in small: a protocol of four steps, and turns of units with takes.

export const PROTOCOL = protocolSchema.parse({
  id: 'p',
  version: 1,
  name: 'P',
  category: 'microphone',
  steps: [
    {
      id: 'speech',
      title: 'Speech',
      instruction: 'Read.',
      distanceM: 0.15,
      angleDeg: 0,
      gain: { rule: 'peaks', lowDbfs: -12, highDbfs: -9 },
    },
    { id: 'silence', title: 'Silence', instruction: 'Hold still.', gain: { rule: 'as-step', step: 'speech' } },
    { id: 'close', title: 'Close', instruction: 'Near.', gain: { rule: 'as-step', step: 'speech', byDb: -50 } },
    {
      id: 'latency',
      title: 'Latency',
      instruction: 'Type.',
      play: { kind: 'table' },
      table: { rowName: 'Rate', rows: ['48'], columnName: 'Buffer', columns: ['64'], cell: 'round trip', unit: 'ms' },
    },
  ],
});
export const [SPEECH, SILENCE, CLOSE, LATENCY] = PROTOCOL.steps;

export const take = (id: number, step: Step, state: SlotTake['state'], change: Partial<SlotTake> = {}): SlotTake => ({
  id: String(id),
  step: step.id,
  attempt: id,
  clip: {
    sha256: 'x',
    bytes: 1,
    name: 'x',
    format: { container: 'wav', encoding: 'pcm24', sampleRateHz: 48_000, channels: 1, durationS: 1 },
    salvaged: null,
    origin: null,
    channelOf: null,
  },
  settings: takeSettingsSchema.parse({ gainDb: 36, pad: '−10' }),
  verdict: 'keep',
  findings: [],
  overruled: [],
  state,
  note: '',
  changes: [],
  peakDbfs: -10,
  loudnessLufs: -24,
  durationS: 1,
  ...change,
});
export const slot = (takes: SlotTake[], change: Partial<Slot> = {}): Slot => ({
  id: '1',
  ordinal: 1,
  purpose: 'unit',
  unit: { maker: 'Oarlock', model: 'Purser', label: 'A', source: 'own', dueBack: null },
  specimenId: null,
  runId: null,
  steps: PROTOCOL.steps.map((s) => s.id),
  takes,
  tables: [],
  lastSettings: [],
  ...change,
});
export const planWith = (...slots: Slot[]): Plan => ({ protocol: PROTOCOL, slots }) as unknown as Plan;
