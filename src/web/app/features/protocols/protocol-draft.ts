import { compareVersions, type StepChange } from '#core/rules/compare-versions';
import type { GainRule } from '#core/rules/step-sheet';
import { asFirstVersion, protocolSchema, type Protocol, type Step } from '#contracts/protocol';
import type { ProtocolVersion } from '#contracts/protocol-page';

/** A new protocol with one step to begin from. */
export function emptyProtocol(): Protocol {
  return protocolSchema.parse({
    id: 'my-protocol',
    version: 1,
    name: 'My protocol',
    category: 'microphone',
    steps: [
      { id: 'speech', title: 'Spoken passage', instruction: 'Read the passage once at an even voice.', role: 'speech' },
    ],
  });
}

/** A protocol of its own that begins as another one: its first version, with no past. */
export function copyOf(protocol: Protocol, taken: readonly string[]): Protocol {
  let id = `${protocol.id}-copy`;
  for (let n = 2; taken.includes(id); n++) id = `${protocol.id}-copy-${n}`;
  return { ...asFirstVersion(protocol), id, name: `${protocol.name}, copy` };
}

/** Most that a length can be: a step without an upper limit. */
const LONGEST_S = 36_000;

/** Limits of a step's length with one of them changed; an emptied one sets none, and two emptied ones leave none. */
export function withLength(
  now: Step['lengthS'],
  part: { readonly least?: number | null; readonly most?: number | null },
): Step['lengthS'] {
  const least = part.least === undefined ? (now?.least ?? 0) : (part.least ?? 0);
  const most = part.most === undefined ? (now?.most ?? LONGEST_S) : (part.most ?? LONGEST_S);
  return least === 0 && most === LONGEST_S ? null : { least, most };
}

/** A table to begin with at a step that fills one. */
export const emptyTable = (): NonNullable<Step['table']> => ({
  rowName: 'Row',
  rows: ['first'],
  columnName: 'Column',
  columns: ['first'],
  cell: 'value',
  unit: '',
  fromFile: null,
});

/** Checks with one of them given another limit; null: the usual one again. */
export function withCheck(
  checks: Step['checks'],
  check: Step['checks'][number]['check'],
  limit: number | null,
): Step['checks'] {
  const others = checks.filter((c) => c.check !== check);
  return limit === null ? others : [...others, { check, limit }];
}

/** What editing a version starts from: itself while it is unused, else the next version. */
export function draftOf(shown: ProtocolVersion, newest: number): Protocol {
  if (!shown.isFrozen) return shown.protocol;
  // Decisions were about the version before; the next one has its own.
  const steps = shown.protocol.steps.map((s) => ({ ...s, comparable: null }));
  return { ...shown.protocol, steps, version: newest + 1, changes: '' };
}

/** A step that can be told from all others. */
export function newStep(steps: readonly Step[]): Step {
  let n = steps.length + 1;
  while (steps.some((s) => s.id === `step-${n}`)) n++;
  return {
    ...emptyProtocol().steps[0],
    id: `step-${n}`,
    title: `Step ${n}`,
    role: 'other',
    instruction: 'Say what is done here.',
    play: { kind: 'text', text: null },
  };
}

/** Steps in another order. */
export function moved<T>(items: readonly T[], from: number, by: number): T[] {
  const to = from + by;
  if (to < 0 || to >= items.length) return [...items];
  const order = [...items];
  [order[from], order[to]] = [order[to], order[from]];
  return order;
}

/** What changed against the version before, as far as it needs a decision. */
export function openDecisions(before: Protocol | undefined, draft: Protocol): StepChange[] {
  return before ? compareVersions(before, draft).filter((c) => c.kind === 'reshaped') : [];
}

/** A gain rule of another kind, with sensible numbers. */
export function gainRule(kind: string, earlier: readonly Step[]): GainRule | null {
  switch (kind) {
    case 'fixed':
      return { rule: 'fixed', gainDb: 40 };
    case 'peaks':
      return { rule: 'peaks', lowDbfs: -12, highDbfs: -9 };
    case 'maximum':
      return { rule: 'maximum' };
    case 'dial':
      return { rule: 'dial', position: 'noon' };
    case 'as-step':
      return earlier.length === 0 ? null : { rule: 'as-step', step: earlier[0].id, byDb: 0 };
    default:
      return null;
  }
}
