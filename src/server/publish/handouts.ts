import { readFile, stat } from 'node:fs/promises';
import type { Edition } from '#contracts/edition';
import { PICTURES, type PictureKind, type PictureSize, type PictureTheme } from '#contracts/picture';
import {
  clipKey,
  editionPicture,
  filmText,
  loneReview,
  reviewMarkdown,
  type ClipPlace,
  type InnerClip,
  type LimitedText,
} from '#press/press';
import { Failure } from '../platform/failure';
import { readerScript } from '../platform/package-root';
import type { Clock } from '../platform/clock';
import type { KeptEdition } from '../reviews/queries/review';
import type { Reviews } from '../reviews/reviews';
import type { Photographs } from '../photos/photographs';
import type { HandedClips, ClipPacking } from './handed-clips';
import { scriptFile } from './clip-scripts';
import { sentZip, textFile, type Pack, type PackFile } from './sent-zip';
import { withinBudget } from './within-budget';

/** One file that holds more opens slowly, and is no file to be sent (common practice, no source): its clips go beside it. */
const MOST_PAGE_BYTES = 60e6;
/** Photographs inside one file, together: more is no file to be sent. */
const MOST_PICTURE_BYTES = 12e6;

const DELETED = 'its clip was deleted from the archive';

/** An edition as something that can be handed out: a page, a text. */
export class Handouts {
  constructor(
    private readonly reviews: Reviews,
    private readonly clips: HandedClips,
    private readonly photographs: Photographs,
    private readonly clock: Clock,
  ) {}

  /** Photographs as addresses that stand inside a page; those that would make it heavy are left to the site. */
  private async pictures({ photographs }: Edition): Promise<Map<string, string>> {
    const found = await Promise.all(
      photographs.map(async ({ sha256, format }) => {
        const photo = await this.photographs.find(sha256);
        return photo ? [{ sha256, format, path: photo.path, bytes: (await stat(photo.path)).size }] : [];
      }),
    );
    const inside = new Map<string, string>();
    for (const { sha256, format, path } of withinBudget(found.flat(), MOST_PICTURE_BYTES))
      inside.set(sha256, `data:image/${format};base64,${(await readFile(path)).toString('base64')}`);
    return inside;
  }

  /**
   * One HTML file with everything inside.
   *
   * @param id - of the edition
   * @param packing - of its clips; null leaves them out
   * @throws Failure `not-found`; `invalid-request` for clips that belong beside it
   */
  async page(id: string, packing: ClipPacking | null): Promise<{ name: string; html: string }> {
    const kept = await this.reviews.edition(id);
    const files = packing ? await this.clipFiles(kept.edition, packing) : new Map<string, string>();
    mustFitInside(await insideBytes(files.values()));
    const inside = new Map<string, InnerClip>();
    for (const [key, path] of files)
      inside.set(key, { id: `clip-${key}`, base64: (await readFile(path)).toString('base64') });
    const html = await this.htmlOf(kept, [...inside.values()], (key) => {
      const clip = inside.get(key);
      if (clip) return { kind: 'inside', id: clip.id };
      return { kind: 'gone', why: packing ? DELETED : 'clips are not in this file' };
    });
    return { name: `${nameOf(kept.edition)}.html`, html };
  }

  /**
   * How large one file would be with these clips, text and pictures aside, and how large it may be.
   *
   * @throws Failure `not-found`
   */
  async pageSize(id: string, packing: ClipPacking): Promise<{ bytes: number; most: number }> {
    const { edition } = await this.reviews.edition(id);
    return { bytes: await insideBytes((await this.clipFiles(edition, packing)).values()), most: MOST_PAGE_BYTES };
  }

  /**
   * The same page with its clips in a folder beside it, as a ZIP: for clips that would make one file heavy. Their names
   * say as little as letters do.
   *
   * @throws Failure `not-found`
   */
  async folder(id: string, packing: ClipPacking): Promise<Pack> {
    const kept = await this.reviews.edition(id);
    const scripts = new Map<string, PackFile>();
    for (const [key, path] of await this.clipFiles(kept.edition, packing))
      scripts.set(key, await scriptFile(`clips/${key}.js`, path));
    const html = await this.htmlOf(kept, [], (key) => {
      const script = scripts.get(key);
      return script ? { kind: 'script', href: script.path } : { kind: 'gone', why: DELETED };
    });
    const name = nameOf(kept.edition);
    const files = [textFile(`${name}.html`, html), ...scripts.values()];
    return sentZip(`${name}-with-clips.zip`, files.map((f) => ({ ...f, path: `${name}/${f.path}` })), kept.edition.publishedOn); // prettier-ignore
  }

  /** Files of the clips of an edition that are still there, by what clips are called in pages. */
  private async clipFiles({ decks }: Edition, packing: ClipPacking): Promise<Map<string, string>> {
    const files = new Map<string, string>();
    for (const lane of decks.flatMap((d) => d.lanes)) {
      const key = clipKey(lane);
      const path = files.has(key) ? null : await this.clips.path(lane, packing);
      if (path) files.set(key, path);
    }
    return files;
  }

  private async htmlOf(
    kept: KeptEdition,
    inside: readonly InnerClip[],
    placeOf: (clip: string) => ClipPlace,
  ): Promise<string> {
    const pictures = await this.pictures(kept.edition);
    return loneReview(
      {
        edition: kept.edition,
        sha256: kept.sha256,
        since: await this.reviews.sinceOf(kept),
        seenOn: this.clock.today(),
        editions: [],
        clipOf: (lane) => placeOf(clipKey(lane)),
        pictureOf: (hash) => pictures.get(hash) ?? null,
        pageOf: () => null,
      },
      inside,
      await readFile(readerScript, 'utf8'),
    );
  }

  /** @throws Failure `not-found` */
  async markdown(id: string): Promise<{ name: string; text: string }> {
    const { edition } = await this.reviews.edition(id);
    return { name: `${nameOf(edition)}.md`, text: reviewMarkdown(edition) };
  }

  /** @throws Failure `not-found` */
  async film(id: string, most?: number): Promise<LimitedText & { name: string }> {
    const { edition } = await this.reviews.edition(id);
    return { name: `${nameOf(edition)}.txt`, ...filmText(edition, most) };
  }

  /**
   * A picture for a film, as SVG.
   *
   * @throws Failure `not-found`, also where the edition has nothing of that kind
   */
  async picture(
    id: string,
    kind: PictureKind,
    size: PictureSize,
    theme: PictureTheme,
  ): Promise<{ name: string; svg: string }> {
    const { edition } = await this.reviews.edition(id);
    const svg = editionPicture(edition, kind, size, theme);
    if (svg === null) throw new Failure('not-found', `This edition has nothing to draw under “${PICTURES[kind]}”.`);
    return { name: `${nameOf(edition)}-${kind}-${size}-${theme}.svg`, svg };
  }

  /** The document itself, byte by byte as its hash was counted. */
  async document(id: string): Promise<{ name: string; json: string; sha256: string }> {
    const { edition, sha256, document } = await this.reviews.edition(id);
    return { name: `${nameOf(edition)}.json`, json: document, sha256 };
  }
}

/** What a file of an edition is called, without its ending. */
export const nameOf = ({ unit, number }: Edition): string =>
  `${[unit.maker, unit.model, unit.label].join(' ').toLowerCase().replaceAll(/[^a-z0-9]+/g, '-').replaceAll(/^-|-$/g, '')}-edition-${number}`; // prettier-ignore

/** What files take as text inside a page. */
async function insideBytes(paths: Iterable<string>): Promise<number> {
  let bytes = 0;
  for (const path of paths) bytes += 4 * Math.ceil((await stat(path)).size / 3);
  return bytes;
}

/** @throws Failure `invalid-request` for clips that belong beside a page */
export function mustFitInside(bytes: number): void {
  if (bytes <= MOST_PAGE_BYTES) return;
  const words = `One file with these clips would have ${Math.ceil(bytes / 1e6)} MB; up to ${MOST_PAGE_BYTES / 1e6} MB can be handed out so.`;
  throw new Failure('invalid-request', words, [
    { file: null, field: 'clips', message: 'take Opus, or the page with its clips in a folder' },
  ]);
}
