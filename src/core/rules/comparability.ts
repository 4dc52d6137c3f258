import { compareVersions, isDoneAlike } from './compare-versions';
import type { ProtocolSheet, StepSheet } from './step-sheet';

/** Whether results of one step under two versions may be put side by side, and why not. */
export interface Comparability {
  readonly comparable: boolean;
  readonly reason: string;
}

const COMPARABLE = 'Nothing that shapes the result has changed.';

/**
 * Follows a step through all versions between two of one protocol. One break anywhere makes the two incomparable.
 *
 * @param versions - all versions of the protocol, in any order
 * @param step - id
 * @param from - version of the one result
 * @param to - version of the other
 */
export function comparableBetween(
  versions: readonly ProtocolSheet[],
  step: string,
  from: number,
  to: number,
): Comparability {
  const [low, high] = from < to ? [from, to] : [to, from];
  const between = versions.filter((v) => v.version >= low && v.version <= high).sort((a, b) => a.version - b.version);
  const reasons: string[] = [];
  for (let i = 1; i < between.length; i++) {
    const change = compareVersions(between[i - 1], between[i]).find((c) => c.step === step);
    const where = `Version ${between[i].version}`;
    if (!change || change.comparable === null)
      return { comparable: false, reason: `${where} and the one before do not both have this step.` };
    if (change.comparable === 'open')
      return { comparable: false, reason: `${where} changed ${shaping(change.fields)}; nobody has decided yet.` };
    if (change.comparable === 'no')
      return {
        comparable: false,
        reason: `${where} changed ${shaping(change.fields)}${change.reason ? `: ${change.reason}` : ''}`,
      };
    if (change.kind === 'reshaped' && change.reason) reasons.push(`${where}: ${change.reason}`);
  }
  return { comparable: true, reason: reasons.join(' ') || COMPARABLE };
}

const shaping = (fields: readonly { field: string; shapes: boolean }[]): string =>
  fields
    .filter((f) => f.shapes)
    .map((f) => f.field)
    .join(', ');

/** A protocol version with the name of its protocol. */
export interface NamedProtocol extends ProtocolSheet {
  readonly id: string;
  readonly name: string;
}

/**
 * Whether a figure that was measured under one protocol version may be ranked among those of another: every step that
 * feeds it has to be comparable. Steps of another protocol count where they are done exactly alike.
 *
 * @param protocols - all versions of all protocols
 * @param measured - where the figure comes from
 * @param current - what it is compared with
 * @param feeds - whether a step feeds the figure
 */
export function comparableFigure(
  protocols: readonly NamedProtocol[],
  measured: NamedProtocol,
  current: NamedProtocol,
  feeds: (step: StepSheet) => boolean,
): Comparability {
  const steps = measured.steps.filter(feeds);
  for (const step of steps) {
    const verdict =
      measured.id === current.id
        ? comparableBetween(
            protocols.filter((p) => p.id === measured.id),
            step.id,
            measured.version,
            current.version,
          )
        : otherProtocol(measured, current, step);
    if (!verdict.comparable) return { comparable: false, reason: `${step.title}: ${verdict.reason}` };
  }
  return { comparable: true, reason: COMPARABLE };
}

function otherProtocol(measured: NamedProtocol, current: NamedProtocol, step: StepSheet): Comparability {
  const alike = current.steps.some((s) => isDoneAlike(step, measured, s, current));
  return alike
    ? { comparable: true, reason: COMPARABLE }
    : { comparable: false, reason: `"${measured.name}" does this otherwise than "${current.name}".` };
}
