import { stepRole } from '../gear/kinds';
import type { GainRule, ProtocolSheet, StepSheet } from './step-sheet';

/** A field of a step that differs between two versions. */
export interface FieldChange {
  readonly field: string;
  readonly before: string;
  readonly after: string;
  /** Whether it shapes the result; wording and file names do not. */
  readonly shapes: boolean;
}

/** What became of a step from one version of a protocol to the next. */
export interface StepChange {
  readonly step: string;
  readonly title: string;
  readonly kind: 'same' | 'reworded' | 'reshaped' | 'new' | 'gone';
  readonly fields: readonly FieldChange[];
  /**
   * "yes" where nothing that shapes the result changed, or a person said so; "no" where a person said so; "open" where
   * somebody has to decide; null where there is nothing to compare.
   */
  readonly comparable: 'yes' | 'no' | 'open' | null;
  readonly reason: string | null;
}

/**
 * Step by step, what changed from one version of a protocol to the next, and whether results stay comparable.
 * Steps are told by their id, in the order of the later version; steps that are gone come last.
 */
export function compareVersions(before: ProtocolSheet, after: ProtocolSheet): StepChange[] {
  const known = new Map(before.steps.map((s) => [s.id, s]));
  const kept = after.steps.map((step) => {
    const old = known.get(step.id);
    return old ? stepChange(step, fieldChanges(old, before, step, after)) : lonely(step, 'new');
  });
  const gone = before.steps.filter((s) => !after.steps.some((t) => t.id === s.id)).map((s) => lonely(s, 'gone'));
  return [...kept, ...gone];
}

const lonely = ({ id, title }: StepSheet, kind: 'new' | 'gone'): StepChange => ({
  step: id,
  title,
  kind,
  fields: [],
  comparable: null,
  reason: null,
});

function stepChange(step: StepSheet, fields: readonly FieldChange[]): StepChange {
  const base = { step: step.id, title: step.title, fields };
  if (!fields.some((f) => f.shapes)) {
    const kind = fields.length === 0 ? 'same' : 'reworded';
    return { ...base, kind, comparable: 'yes', reason: 'Nothing that shapes the result has changed.' };
  }
  const decision = step.comparable;
  return {
    ...base,
    kind: 'reshaped',
    comparable: decision === null ? 'open' : decision.withPrevious ? 'yes' : 'no',
    reason: decision?.reason ?? null,
  };
}

/** Everything in which two versions of a step differ. */
function fieldChanges(a: StepSheet, inA: ProtocolSheet, b: StepSheet, inB: ProtocolSheet): FieldChange[] {
  const before = fieldsOf(a, inA);
  const after = fieldsOf(b, inB);
  return before.flatMap(({ field, value, shapes }, i) =>
    value === after[i].value ? [] : [{ field, before: value, after: after[i].value, shapes }],
  );
}

/** Whether two steps, of any protocols, are done alike in everything that shapes the result. */
export function isDoneAlike(a: StepSheet, inA: ProtocolSheet, b: StepSheet, inB: ProtocolSheet): boolean {
  return !fieldChanges(a, inA, b, inB).some((f) => f.shapes);
}

interface Field {
  readonly field: string;
  readonly value: string;
  readonly shapes: boolean;
}

function fieldsOf(step: StepSheet, protocol: ProtocolSheet): Field[] {
  const shaping = (field: string, value: string): Field => ({ field, value, shapes: true });
  const wording = (field: string, value: string): Field => ({ field, value, shapes: false });
  const kind = playKindOf(step);
  return [
    wording('title', step.title),
    wording('purpose', step.purpose || '—'),
    wording('instruction', step.instruction),
    shaping('what is played', kind),
    shaping('text', textOf(step, protocol) ?? '—'),
    shaping('sweep', kind === 'sweep' ? JSON.stringify(protocol.sweep) : '—'),
    shaping('distance', step.distanceM === null ? '—' : `${step.distanceM} m`),
    shaping('angle', step.angleDeg === null ? '—' : `${step.angleDeg}°`),
    shaping('height', step.heightM === null ? '—' : `${step.heightM} m`),
    shaping('address', step.address ?? '—'),
    shaping('calibrator', step.levelDbSpl === null ? '—' : `${step.levelDbSpl} dB SPL`),
    shaping('tone at the input', step.levelDbu === null ? '—' : `${step.levelDbu} dBu`),
    shaping('gain', gainText(step.gain)),
    shaping('repeats', String(step.repeats)),
    shaping('voices', step.voices.join(', ') || '—'),
    shaping('accessories', step.accessories.join(', ') || '—'),
    shaping('pair', step.pair ? `${step.pair.varies}, with ${step.pair.step}` : '—'),
    shaping('table', step.table ? JSON.stringify(step.table) : '—'),
    // A longer take of the same thing gives the same figures with less scatter; checks and lists of figures only judge.
    wording('length', step.lengthS ? `${step.lengthS.least} to ${step.lengthS.most} s` : '—'),
    wording(
      'checks',
      step.checks.map((c) => (c.limit === null ? c.check : `${c.check} ${c.limit}`)).join(', ') || 'the usual ones',
    ),
    wording('figures', step.measures.join(', ') || '—'),
  ];
}

/** What a step plays; versions that do not say so are read by their role. */
export function playKindOf(step: Pick<StepSheet, 'play' | 'role' | 'id'>): string {
  if (step.play) return step.play.kind;
  const role = step.role ?? step.id;
  return stepRole(role)?.plays ?? role;
}

/** The words of a step: its own, or the passage of the protocol. */
export function textOf(
  step: Pick<StepSheet, 'play' | 'role' | 'id'>,
  protocol: Pick<ProtocolSheet, 'text'>,
): string | null {
  return step.play?.text ?? (playKindOf(step) === 'text' ? protocol.text : null);
}

/** A gain rule in words. */
export function gainText(gain: GainRule | null): string {
  if (gain === null) return 'as the instruction says';
  const signed = (x: number): string => `${Math.abs(x)} dB ${x < 0 ? 'less' : 'more'}`;
  if (gain.rule === 'fixed') return `${gain.gainDb} dB`.replace('-', '−');
  if (gain.rule === 'peaks') return `peaks at ${gain.lowDbfs} to ${gain.highDbfs} dBFS`.replace(/-/g, '−');
  if (gain.rule === 'maximum') return 'maximum';
  if (gain.rule === 'dial') return `dial at ${gain.position}`;
  return `as at ${gain.step}${gain.byDb === 0 ? '' : `, ${signed(gain.byDb)}`}`;
}
