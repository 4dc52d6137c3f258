import type { RunDocument } from '#contracts/run-document';

/**
 * What makes a run this run and no other, as one text: the same recordings of the same unit under the same settings
 * are the same run, whatever their files are called. Of a run without recordings its tables are what it is.
 *
 * @param document - of the run
 * @param hashOfFile - hash of the bytes behind a file's name; null where there is no such file
 */
export function runIdentity(document: RunDocument, hashOfFile: (file: string) => string | null): string {
  const takes = document.takes.map((t) => [
    t.step,
    hashOfFile(t.file),
    // A dial without decibels is what the gain is.
    t.gainDb ?? String(t.settings?.['dial'] ?? ''),
    t.distanceM ?? null,
    t.angleDeg ?? null,
  ]);
  const { maker, model, label, category } = document.specimen;
  const { date, protocol, protocolVersion, source } = document;
  const tables = document.tables.map(({ step, cells }) => [step, cells.map((c) => [c.row, c.column, c.value])]);
  const whole = [maker, model, label, category, date, protocol, protocolVersion, source, takes];
  return JSON.stringify(takes.length === 0 ? [...whole, tables] : whole);
}
