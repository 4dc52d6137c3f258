import { createHash } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Table from 'cli-table3';
import type { Edition } from '#contracts/edition';
import { edition } from '#press/testing/edition';
import { openApplication, type Application } from '#server/wiring';

// How long a site of many reviews takes: the first time, again with nothing changed, and with one new edition. Each
// review is of a unit of its own, with one of everything but clips. Ratios within one run.

const REVIEWS = Number(process.argv[2] ?? 2000);
const folder = mkdtempSync(join(tmpdir(), 'sediment-bench-publish-'));
const table = new Table({ head: ['what', 'seconds', 'files written', 'of the first time'], style: { head: [], border: [] } }); // prettier-ignore

async function main(): Promise<void> {
  const app = await openApplication({ folder: join(folder, 'data') });
  const reviews: { id: string; unit: Edition['unit'] }[] = [];
  for (let i = 0; i < REVIEWS; i++) {
    const names = { maker: 'Oarlock', model: `Copy ${i}`, label: 'A', category: 'microphone' };
    const { id: specimen } = await app.scoring.addUnit(names);
    const { id } = await app.reviews.open(specimen);
    reviews.push({ id, unit: { ...names, id: specimen, kind: 'Microphone' } });
    await publish(app, reviews[i], 1);
  }
  const out = join(folder, 'site');
  let firstS = 0;
  const measure = async (what: string): Promise<void> => {
    const began = performance.now();
    const report = await app.site.publish(out, { codec: 'opus', kbps: 48 });
    const seconds = (performance.now() - began) / 1000;
    firstS ||= seconds;
    table.push([what, seconds.toFixed(1), `${report.written} of ${report.written + report.kept}`, `${((100 * seconds) / firstS).toFixed(1)} %`]); // prettier-ignore
  };
  await measure(`${REVIEWS} reviews, the first time`);
  await measure('again, nothing has changed');
  await publish(app, reviews[0], 2);
  await measure('again, with one new edition');
  await app.close();
  console.log(table.toString());
}

/** An edition as publishing keeps it; publishing itself would measure other things. */
async function publish(
  app: Application,
  { id, unit }: { id: string; unit: Edition['unit'] },
  number: number,
): Promise<void> {
  const document = JSON.stringify(edition({ review: id, unit, number, decks: [] }));
  const sha256 = createHash('sha256').update(document).digest('hex');
  await app.database.query('INSERT INTO edition (review_id, number, published_on, document, sha256) VALUES ($1, $2, $3, $4, $5)', [id, number, '2025-05-24', document, sha256]); // prettier-ignore
}

try {
  await main();
} finally {
  rmSync(folder, { recursive: true, force: true });
}
