import type { RunDocument } from '#contracts/run-document';

/**
 * What makes a run this run and no other, as one text: the same recordings of the same unit under the same settings
 * are the same run, whatever their files are called.
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
  return JSON.stringify([maker, model, label, category, date, protocol, protocolVersion, source, takes]);
}
