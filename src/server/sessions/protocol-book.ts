import { QUANTITY_IDS, type QuantityId } from '#core/measure/registry';
import { compareVersions } from '#core/rules/compare-versions';
import { pairedOffset } from '#core/stats/paired-offset';
import { protocolProblems, protocolSchema, type Protocol, type Step } from '#contracts/protocol';
import type { Bridges, ProtocolVersion } from '#contracts/protocol-page';
import type { ProblemDetail } from '#contracts/problem';
import { ALGORITHM_VERSION } from '#core/measure/registry';
import { fieldText, issueText } from '#contracts/issue-text';
import type { Database } from '../platform/db/database';
import type { EventHub } from '../platform/event-hub';
import { bridgingFacts } from '../runs/queries/measurement';
import { addProtocolVersion, dropProtocolVersion, findProtocol, listProtocols, versionUses } from './queries/protocol';
import { specimensInOrder } from '../catalogue/queries/specimen';
import { Failure } from '../platform/failure';
import { bridgePairs } from '#domain/catalogue/bridge-pairs';
import { feedsFigure } from '#domain/catalogue/feeding-steps';

/** The written rules of recording: versions, what they were used for, and how they compare. */
export class ProtocolBook {
  constructor(
    private readonly database: Database,
    private readonly hub: EventHub,
  ) {}

  protocols(): Promise<Protocol[]> {
    return listProtocols(this.database);
  }

  find(slug: string, version: number): Promise<Protocol | null> {
    return findProtocol(this.database, slug, version);
  }

  async versions(): Promise<ProtocolVersion[]> {
    const uses = await versionUses(this.database);
    return (await this.protocols()).map((protocol) => {
      const use = uses.find((u) => u.slug === protocol.id && u.version === protocol.version);
      return {
        protocol,
        runs: use?.runs ?? 0,
        isFrozen: (use?.runs ?? 0) + (use?.plans ?? 0) > 0,
        firstUsed: use?.first_used ?? null,
        lastUsed: use?.last_used ?? null,
      };
    });
  }

  /**
   * Saves a version: the next one of its protocol, the first one of a new protocol, or an unused one over itself.
   *
   * @throws Failure `protocol-refused` with everything that is wrong, `protocol-frozen` for a used version
   */
  async save(raw: unknown): Promise<ProtocolVersion> {
    const parsed = protocolSchema.safeParse(raw);
    if (!parsed.success) {
      throw refused(parsed.error.issues.map((i) => ({ file: null, field: fieldText(i.path), message: issueText(i) })));
    }
    const protocol = parsed.data;
    const versions = (await this.versions()).filter((v) => v.protocol.id === protocol.id);
    const same = versions.find((v) => v.protocol.version === protocol.version);
    if (same?.isFrozen)
      throw new Failure(
        'protocol-frozen',
        `Version ${protocol.version} of "${protocol.name}" has been used and cannot change any more.`,
      );
    const latest = Math.max(0, ...versions.map((v) => v.protocol.version));
    const problems: ProblemDetail[] = protocolProblems(protocol).map((p) => ({ file: null, ...p }));
    if (!same && protocol.version !== latest + 1) {
      problems.push({ file: null, field: 'version', message: `the next version is ${latest + 1}` });
    }
    if (versions.some((v) => v.protocol.category !== protocol.category))
      problems.push({ file: null, field: 'category', message: 'a protocol cannot change its category' });
    const before = versions.find((v) => v.protocol.version === protocol.version - 1)?.protocol;
    problems.push(...(before ? undecided(before, protocol) : []));
    problems.push(...unknownFigures(protocol));
    if (problems.length > 0) throw refused(problems);
    await this.database.transaction(async (tx) => {
      if (same) await dropProtocolVersion(tx, protocol.id, protocol.version);
      await addProtocolVersion(tx, protocol);
    });
    this.hub.rulesChanged();
    return (await this.versions()).find(
      (v) => v.protocol.id === protocol.id && v.protocol.version === protocol.version,
    ) as ProtocolVersion;
  }

  /**
   * Offsets of the figures that steps of both versions feed, from units that were measured under both.
   *
   * @throws Failure `not-found`
   */
  async bridges(slug: string, from: number, to: number): Promise<Bridges> {
    const protocols = await listProtocols(this.database, slug);
    const [before, after] = [from, to].map((v) => protocols.find((p) => p.version === v));
    if (!before || !after) throw new Failure('not-found', `There are no versions ${from} and ${to} of "${slug}".`);
    const facts = (await bridgingFacts(this.database, ALGORITHM_VERSION)).filter((f) => f.protocol === slug);
    const names = new Map((await specimensInOrder(this.database)).map((s) => [s.id, s.name]));
    const changes = compareVersions(before, after);
    const units = new Set<string>();
    const offsets = changes.flatMap((change) => {
      const step = after.steps.find((s) => s.id === change.step);
      if (!step || change.kind === 'gone' || change.kind === 'new') return [];
      return fedBy(step, after).flatMap((id) => {
        const pairs = bridgePairs(facts, id, from, to);
        const offset = pairedOffset(pairs.map((p) => p.pair));
        if (!offset) return [];
        pairs.forEach((p) => units.add(p.unit));
        return [
          {
            step: change.step,
            title: change.title,
            comparable: change.comparable,
            quantity: id,
            offset: offset.offset,
            uncertainty: offset.uncertainty,
            interval95: offset.interval95 && ([...offset.interval95] as [number, number]),
            units: pairs.map((p) => ({
              id: p.unit,
              name: names.get(p.unit) ?? p.unit,
              before: p.pair.before,
              after: p.pair.after,
            })),
          },
        ];
      });
    });
    return { from, to, units: units.size, offsets: firstOfEach(offsets) };
  }
}

/** Figures that a kind of step gives by itself or together with others. */
const fedBy = (step: Step, { steps }: Protocol): QuantityId[] =>
  QUANTITY_IDS.filter((id) => feedsFigure(id, step, steps));

/** Several steps of one role feed one figure: it is listed once. */
const firstOfEach = <T extends { quantity: string }>(offsets: readonly T[]): T[] =>
  offsets.filter((o, i) => offsets.findIndex((x) => x.quantity === o.quantity) === i);

function undecided(before: Protocol, after: Protocol): ProblemDetail[] {
  return compareVersions(before, after)
    .filter((c) => c.comparable === 'open')
    .map((c) => ({
      file: null,
      field: `steps.${c.step}.comparable`,
      message: `"${c.title}" changed in ${c.fields
        .filter((f) => f.shapes)
        .map((f) => f.field)
        .join(', ')}: say whether its results stay comparable, and why`,
    }));
}

function unknownFigures(protocol: Protocol): ProblemDetail[] {
  const known: readonly string[] = QUANTITY_IDS;
  return protocol.steps.flatMap((step, i) =>
    step.measures
      .filter((m) => !known.includes(m))
      .map((m) => ({ file: null, field: `steps[${i}].measures`, message: `there is no figure "${m}"` })),
  );
}

const refused = (details: ProblemDetail[]): Failure =>
  new Failure('protocol-refused', 'This protocol cannot be saved as it is.', details);
