import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { extname } from 'node:path';
import type { Edition } from '#contracts/edition';
import type { Protocol } from '#contracts/protocol';
import type { SpecimenSheet } from '#contracts/specimen';
import { fileName } from '#domain/compare/levels-text';
import { bagTags, reviewMarkdown, tagManifest } from '#press/press';
import { unitCsv, unitExport } from '../catalogue/unit-export';
import type { Catalogue } from '../catalogue/catalogue';
import type { ClipStore } from '../platform/archive/clip-store';
import type { ProtocolBook } from '../sessions/protocol-book';
import type { Reviews } from '../reviews/reviews';
import { nameOf } from './handouts';
import type { ClipPacking, HandedClips } from './handed-clips';
import { hashOfFile, sentZip, textFile, type Pack, type PackFile } from './sent-zip';

/**
 * An edition with all that stands behind it as a bag (RFC 8493) in a ZIP: recordings as they came, copies at one
 * loudness, figures, protocols, text. Nothing is held in memory but the lists; the same pack has the same bytes each time,
 * so that a transfer that broke off goes on where it ended.
 */
export class Packs {
  constructor(
    private readonly reviews: Reviews,
    private readonly catalogue: Catalogue,
    private readonly protocols: ProtocolBook,
    private readonly clips: HandedClips,
    private readonly store: ClipStore,
    private readonly software: string,
  ) {}

  /** @throws Failure `not-found` */
  async of(editionId: string, packing: ClipPacking): Promise<Pack> {
    const kept = await this.reviews.edition(editionId);
    const { edition } = kept;
    const name = nameOf(edition);
    const sheet = await this.catalogue.sheet(await this.reviews.unitOf(kept.reviewId));
    const missing: string[] = [];
    const payload = [
      textFile('edition.json', kept.document),
      textFile('review.md', reviewMarkdown(edition)),
      ...this.figures(sheet, await this.protocols.protocols()),
      ...(await this.recordings(sheet, edition, missing)),
      ...(await this.matched(edition, packing, missing)),
      textFile(
        'licence.txt',
        `${edition.clipLicence || 'Nobody has said under which licence these clips may be used.'}\n`,
      ),
      ...(missing.length === 0 ? [] : [textFile('missing.txt', `${missing.join('\n')}\n`)]),
    ].sort((a, b) => (a.path < b.path ? -1 : 1));
    const tags = Object.entries(
      bagTags(payload, {
        organisation: edition.desk,
        day: edition.publishedOn,
        identifier: kept.sha256,
        description: `${edition.unit.maker} ${edition.unit.model} ${edition.unit.label}, edition ${edition.number}: ${edition.text.headline}`,
        software: `Sediment ${this.software}`,
      }),
    ).map(([path, body]) => textFile(path, body));
    const top = [...tags, textFile('tagmanifest-sha256.txt', tagManifest(tags))];
    const files = [...top, ...payload.map((f) => ({ ...f, path: `data/${f.path}` }))].map((f) => ({ ...f, path: `${name}/${f.path}` })); // prettier-ignore
    return sentZip(`${name}.zip`, files, edition.publishedOn);
  }

  private figures(sheet: SpecimenSheet, known: readonly Protocol[]): PackFile[] {
    const measured = unitExport(sheet);
    const used = new Set(sheet.runs.map((r) => `${r.protocol} ${r.protocolVersion}`));
    const protocols = known.filter((p) => used.has(`${p.id} ${p.version}`));
    return [
      textFile('measurements.json', JSON.stringify(measured, null, 2)),
      textFile('measurements.csv', unitCsv(measured)),
      ...protocols.map((p) => textFile(`protocols/${p.id}-${p.version}.json`, JSON.stringify(p, null, 2))),
    ];
  }

  /** Recordings of the unit, and what it was heard beside, as they came. */
  private async recordings(sheet: SpecimenSheet, edition: Edition, missing: string[]): Promise<PackFile[]> {
    const own = sheet.runs.flatMap((run) =>
      run.takes.map((take) => ({ sha256: take.clip.sha256, as: `${run.date} ${take.stepTitle}` })),
    );
    const beside = edition.decks.flatMap((d) => d.lanes.map((l) => ({ sha256: l.sha256, as: `${l.date} ${d.title} ${l.name}` }))); // prettier-ignore
    const files: PackFile[] = [];
    const seen = new Set<string>();
    for (const { sha256, as } of [...own, ...beside]) {
      if (seen.has(sha256)) continue;
      seen.add(sha256);
      const path = await this.store.verified(sha256);
      if (path === null) missing.push(`originals: ${as} (${sha256}) is not in the archive any more`);
      // The archive knows a recording by the hash of its bytes: it need not be read to be listed.
      else files.push({ path: `originals/${fileName(as)} ${sha256.slice(0, 8)}${extname(path)}`, bytes: (await stat(path)).size, sha256, open: () => createReadStream(path) }); // prettier-ignore
    }
    return files;
  }

  private async matched(edition: Edition, packing: ClipPacking, missing: string[]): Promise<PackFile[]> {
    const files: PackFile[] = [];
    for (const [d, deck] of edition.decks.entries())
      for (const [i, lane] of deck.lanes.entries()) {
        const path = await this.clips.path(lane, packing);
        const as = `${d + 1}-${i + 1} ${fileName(`${deck.title} ${lane.name}`)}`;
        if (path === null) missing.push(`matched: ${as} (${lane.sha256}) is not in the archive any more`);
        else files.push({ path: `matched/${as}${extname(path)}`, bytes: (await stat(path)).size, sha256: await hashOfFile(path), open: () => createReadStream(path) }); // prettier-ignore
      }
    return files;
  }
}
