import { fieldText, issueText } from '#contracts/issue-text';
import { runDocumentSchema, runFileNameSchema, type RunDocument } from '#contracts/run-document';
import type { ProblemDetail } from '#contracts/problem';
import { servesKind, type Protocol } from '#contracts/protocol';
import { misfits } from '#domain/step-tables/step-table';
import { servesOthers } from '#domain/sessions/serves-others';
import { currentKind, sheetField } from '#core/gear/kinds';
import { misfit } from '#core/gear/sheet/sheet-value';
import { isGivenByHand, type Rubric } from '#core/rules/rubric';

/** What a run document is checked against. */
export interface RunCheckContext {
  readonly protocols: readonly Protocol[];
  /** The current rubric of a category, or null. */
  readonly rubricOf: (category: string) => Rubric | null;
}

/** Name under which problems of the document itself are listed. */
export const RUN_FILE = 'run.json';

/**
 * Checks a run document and lists everything that is wrong with it, not just the first thing. What depends on a part
 * that is itself wrong is checked as far as it can be.
 *
 * @param sent - the parsed JSON
 * @returns the document where it is sound, and all problems
 */
export function checkRunDocument(
  sent: unknown,
  context: RunCheckContext,
): { document: RunDocument | null; problems: ProblemDetail[]; files: string[] } {
  const raw = withCurrentKind(sent);
  const tooLong = longLists(raw);
  if (tooLong.length > 0) return { document: null, problems: tooLong, files: [] };
  const parsed = runDocumentSchema.safeParse(raw);
  const problems: ProblemDetail[] = (parsed.error?.issues ?? []).map((issue) => problem(issue.path, issueText(issue)));
  const loose = asRecord(raw);
  const takes = asList(loose['takes']).map(asRecord);
  const points = asList(loose['points']).map(asRecord);
  problems.push(...protocolProblems(loose, takes, context.protocols));
  problems.push(...pointsProblems(loose, points, context));
  if (parsed.success) problems.push(...sheetProblems(parsed.data), ...tableProblems(parsed.data, context.protocols));
  problems.push(
    ...repeated(takes, 'takes', 'file'),
    ...repeated(points, 'points', 'criterion'),
    ...repeated(asList(loose['tables']).map(asRecord), 'tables', 'step'),
  );
  const files = takes.map((t) => t['file']).filter((f): f is string => runFileNameSchema.safeParse(f).success);
  return {
    document: problems.length === 0 && parsed.success ? parsed.data : null,
    problems,
    files: [...new Set(files)],
  };
}

/** More than any run has, in any list: checking each entry would only tell the same thing many times. */
const MOST_ENTRIES = 200;

const longLists = (raw: unknown): ProblemDetail[] =>
  Object.entries(asRecord(raw)).flatMap(([key, value]) =>
    Array.isArray(value) && value.length > MOST_ENTRIES
      ? [problem([key], `holds ${value.length} entries; a run has at most ${MOST_ENTRIES}`)]
      : [],
  );

type Loose = Record<string, unknown>;

/** Files name a kind as it was called when they were written. */
function withCurrentKind(sent: unknown): unknown {
  const loose = asRecord(sent);
  const specimen = asRecord(loose['specimen']);
  const category = currentKind(specimen['category']);
  return category === specimen['category'] ? sent : { ...loose, specimen: { ...specimen, category } };
}

/** Fields of the data sheet that the kind of gear does not have, or that do not take what stands in them. */
const sheetProblems = ({ specimen, sheet }: RunDocument): ProblemDetail[] =>
  Object.entries(sheet).flatMap(([id, value]) => {
    const field = sheetField(specimen.category, id);
    const why = field ? misfit(field, value) : `is no field of the sheet of ${specimen.category}`;
    return why === null ? [] : [problem(['sheet', id], why)];
  });

/** Tables and cells that the protocol does not have, and what is filled in twice. */
function tableProblems(
  { protocol, protocolVersion, tables }: RunDocument,
  known: readonly Protocol[],
): ProblemDetail[] {
  const steps = known.find((p) => p.id === protocol && p.version === protocolVersion)?.steps;
  if (!steps) return [];
  const withTables = steps.filter((s) => s.table).map((s) => s.id);
  return tables.flatMap(({ step, cells }, i) => {
    const table = steps.find((s) => s.id === step)?.table;
    if (!table)
      return [problem(['tables', i, 'step'], `"${step}" is no step with a table; those are: ${withTables.join(', ') || 'none'}`)]; // prettier-ignore
    return misfits(cells, table).map(({ at, why }) => problem(['tables', i, 'cells', at], why));
  });
}

const asRecord = (value: unknown): Loose => (typeof value === 'object' && value !== null ? (value as Loose) : {});
const asList = (value: unknown): unknown[] => (Array.isArray(value) ? value : []);

const problem = (path: readonly PropertyKey[], message: string): ProblemDetail => ({
  file: RUN_FILE,
  field: fieldText(path),
  message,
});

function protocolProblems(loose: Loose, takes: readonly Loose[], protocols: readonly Protocol[]): ProblemDetail[] {
  const { protocol: name, protocolVersion: version } = loose;
  if (typeof name !== 'string' || typeof version !== 'number') return [];
  const versions = protocols.filter((p) => p.id === name);
  if (versions.length === 0) {
    return [
      problem(
        ['protocol'],
        `there is no protocol "${name}"; known: ${[...new Set(protocols.map((p) => p.id))].join(', ')}`,
      ),
    ];
  }
  const protocol = versions.find((p) => p.version === version);
  if (!protocol) {
    return [
      problem(
        ['protocolVersion'],
        `"${name}" has no version ${version}; known: ${versions.map((p) => p.version).join(', ')}`,
      ),
    ];
  }
  const steps = protocol.steps.map((s) => s.id);
  const found = takes.flatMap((take, i) =>
    typeof take['step'] === 'string' && !steps.includes(take['step'])
      ? [
          problem(
            ['takes', i, 'step'],
            `"${name}" version ${version} has no step "${take['step']}"; it has: ${steps.join(', ')}`,
          ),
        ]
      : [],
  );
  const category = asRecord(loose['specimen'])['category'];
  if (typeof category === 'string' && !servesKind(protocol, category)) {
    found.push(problem(['specimen', 'category'], servesOthers(name, protocol, category)));
  }
  return found;
}

function pointsProblems(loose: Loose, points: readonly Loose[], context: RunCheckContext): ProblemDetail[] {
  const category = asRecord(loose['specimen'])['category'];
  if (typeof category !== 'string' || points.length === 0) return [];
  const rubric = context.rubricOf(category);
  const byHand = rubric?.criteria.filter(isGivenByHand).map((c) => c.id) ?? [];
  return points.flatMap((entry, i) => {
    const criterion = entry['criterion'];
    if (typeof criterion !== 'string' || byHand.includes(criterion)) return [];
    const isMeasured = rubric?.criteria.some((c) => c.id === criterion) ?? false;
    const known =
      byHand.length > 0 ? `points by hand go to: ${byHand.join(', ')}` : `there are no rules yet for ${category}`;
    return [
      problem(
        ['points', i, 'criterion'],
        isMeasured
          ? `"${criterion}" follows from measurement or price; ${known}`
          : `there is no criterion "${criterion}"; ${known}`,
      ),
    ];
  });
}

function repeated(entries: readonly Loose[], list: string, key: string): ProblemDetail[] {
  const seen = new Set<unknown>();
  return entries.flatMap((entry, i) => {
    const value = entry[key];
    if (typeof value !== 'string') return [];
    const again = seen.has(value);
    seen.add(value);
    return again ? [problem([list, i, key], `"${value}" is named twice`)] : [];
  });
}
