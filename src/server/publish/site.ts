import { readFile } from 'node:fs/promises';
import type { Edition } from '#contracts/edition';
import { QUESTIONS } from '#contracts/listening';
import {
  allPage,
  atomFeed,
  blindPage,
  editionPath,
  frontPage,
  kindPage,
  kindPath,
  packKeyPath,
  packPath,
  MARK,
  pagesOf,
  PAGE_STYLE,
  reviewPage,
  reviewPath,
  siteMap,
  slugOf,
  type ReviewFiles,
  type SiteContent,
  type SiteFrame,
  type SitePack,
  type SiteReview,
} from '#press/press';
import type { Catalogue } from '../catalogue/catalogue';
import type { Clock } from '../platform/clock';
import { readerScript, searchScript } from '../platform/package-root';
import type { Photographs } from '../photos/photographs';
import type { HouseRules } from '../reviews/house-rules';
import type { KindStandings } from '../reviews/kind-standings';
import type { Reviews } from '../reviews/reviews';
import type { ListeningTests } from '../listening/listening-tests';
import type { BlindPacks } from './blind-packs';
import type { ClipPacking, HandedClips } from './handed-clips';
import type { SharedPictures } from './shared-pictures';
import { SinceCache } from './since-cache';
import { madeFrom, SiteFolder, type SiteReport } from './site-folder';
import { inOrder, siteKind } from './site-kinds';

/** Raised when pages are made otherwise from the same content. */
const PAGES_VERSION = 3;

/** The static site of everything that is published: any file server serves it, and a browser reads it from a folder. */
export class Site {
  private running: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly catalogue: Catalogue,
    private readonly standings: KindStandings,
    private readonly reviews: Reviews,
    private readonly house: HouseRules,
    private readonly clips: HandedClips,
    private readonly photographs: Photographs,
    private readonly shared: SharedPictures,
    private readonly packs: BlindPacks,
    private readonly tests: ListeningTests,
    private readonly clock: Clock,
    private readonly software: string,
  ) {}

  /**
   * Writes the site; what has not changed since the last time is left as it is.
   *
   * @param out - an empty folder, or the one that was published to before
   * @param packing - of clips
   * @throws Failure `invalid-request` where the folder holds something else
   */
  publish(out: string, packing: ClipPacking): Promise<SiteReport> {
    // One after the other: two in one folder would take away what the other has just written.
    const done = this.running.then(() => this.write(out, packing));
    this.running = done.catch(() => undefined);
    return done;
  }

  private async write(out: string, packing: ClipPacking): Promise<SiteReport> {
    const folder = await SiteFolder.open(out);
    const since = new SinceCache(new Map(Object.entries(folder.before.since)), this.standings, this.software);
    const content = await this.content(since);
    const frame = await this.assets(folder, content);
    const pages = pagesOf(content.reviews);
    for (const review of content.reviews) {
      for (const shown of review.editions) {
        const files = await this.filesOf(folder, shown, packing, pages);
        const isNewest = shown.edition.number === review.edition.number;
        const path = isNewest ? reviewPath(review.slug) : editionPath(review.slug, shown.edition.number);
        const linked = this.linked(shown.edition, pages);
        const made = [shown.sha256, isNewest ? review.since : null, review.editions.map((e) => e.sha256), linked, files.there]; // prettier-ignore
        await folder.put(path, madeFrom(PAGES_VERSION, frame, made), () =>
          Promise.resolve(reviewPage(review, shown, frame, files, content.day)),
        );
      }
    }
    for (const kind of content.kinds)
      await folder.put(kindPath(kind.id), madeFrom(PAGES_VERSION, frame, content.day, kind, [...pages]), () =>
        Promise.resolve(kindPage(kind, content, frame)),
      );
    for (const { tag, opened, id, isPlayable } of content.packs) {
      if (isPlayable)
        await folder.put(packPath(tag), madeFrom(PAGES_VERSION, tag), async () => (await this.packs.page(id)).html);
      if (opened) await folder.put(packKeyPath(tag), tag, async () => (await this.packs.key(id)).text);
    }
    await this.lists(folder, content, frame);
    return folder.close(Object.fromEntries([...since.next].map(([sha, s]) => [sha, { key: s.key, changes: [...s.changes] }]))); // prettier-ignore
  }

  /** Pages about everything. */
  private async lists(folder: SiteFolder, content: SiteContent, frame: SiteFrame): Promise<void> {
    const { desk, address, day } = content;
    const lines = content.reviews.map((r) => [r.slug, r.sha256, r.since]);
    const tops = content.kinds.map((k) => [k.id, k.ranking.length, k.ranking.slice(0, 3)]);
    const key = madeFrom(PAGES_VERSION, frame, day, lines, tops, content.packs);
    const text = (make: () => string) => (): Promise<string> => Promise.resolve(make());
    await folder.put('index.html', key, text(() => frontPage(content, frame))); // prettier-ignore
    await folder.put('all.html', key, text(() => allPage(content, frame))); // prettier-ignore
    await folder.put('blind.html', key, text(() => blindPage(content, frame))); // prettier-ignore
    await folder.put('feed.xml', madeFrom(PAGES_VERSION, desk, address, lines), text(() => atomFeed(content))); // prettier-ignore
    const map = siteMap(content);
    if (map !== null) await folder.put('sitemap.xml', madeFrom(map), text(() => map)); // prettier-ignore
  }

  private async content(
    since: SinceCache,
  ): Promise<SiteContent & { readonly packs: readonly (SitePack & { readonly id: string })[] }> {
    const { desk, address } = await this.house.current();
    const reviews: SiteReview[] = [];
    for (const { unit, editions } of await this.reviews.published()) {
      const [newest] = editions;
      const { unit: first } = editions[editions.length - 1].edition;
      reviews.push({
        id: newest.reviewId,
        unit,
        slug: `${slugOf(`${first.maker} ${first.model} ${first.label}`)}-${newest.reviewId}`,
        edition: newest.edition,
        sha256: newest.sha256,
        since: await since.of(unit, newest),
        editions: editions.map(({ edition, sha256 }) => ({ edition, sha256 })),
      });
    }
    const kinds = [];
    for (const inputs of await this.catalogue.allRankingInputs()) {
      const kind = siteKind(inputs, await this.standings.ofKind(inputs), await this.standings.forUses(inputs));
      if (kind) kinds.push(kind);
    }
    const packs = await this.sealedTests();
    return {
      desk,
      address: address.replace(/\/+$/, ''),
      day: this.clock.today(),
      reviews,
      kinds: inOrder(kinds),
      packs,
    };
  }

  /** Packs that are to be heard on the site, latest first; opened ones with what their answers said. */
  private async sealedTests(): Promise<(SitePack & { readonly id: string })[]> {
    const packs = [];
    for (const row of await this.tests.list()) {
      if (row.design !== 'pack') continue;
      const { settings, pack, result } = await this.tests.page(row.id);
      if (!pack || settings.pack?.onSite !== true) continue;
      const { title, revealOn } = settings.pack;
      const { tag, keySha256, sealedOn, openingCode } = pack;
      const opened = openingCode === null ? null : { code: openingCode, sentences: result?.sentences.map((s) => s.words) ?? [] }; // prettier-ignore
      packs.push({ id: row.id, tag, title, question: QUESTIONS[settings.attribute], sealedOn, revealOn, keySha256, opened, isPlayable: await this.packs.isWhole(row.id) }); // prettier-ignore
    }
    return packs;
  }

  /** Style and scripts, by what is in them: a browser may keep them for ever. */
  private async assets(folder: SiteFolder, { desk, address }: SiteContent): Promise<SiteFrame> {
    const put = async (name: string, ending: string, text: string): Promise<string> => {
      const path = `assets/${name}-${madeFrom(text).slice(0, 12)}.${ending}`;
      await folder.put(path, madeFrom(text), () => Promise.resolve(text));
      return path;
    };
    return {
      desk,
      address,
      style: await put('style', 'css', PAGE_STYLE),
      reader: await put('reader', 'js', await readFile(readerScript, 'utf8')),
      mark: await put('mark', 'svg', MARK),
      search: await put('search', 'js', await readFile(searchScript, 'utf8')),
    };
  }

  /** Clips and photographs of an edition, copied into the site, and the picture that goes with a link to it. */
  private async filesOf(
    folder: SiteFolder,
    { edition, sha256: hash }: { readonly edition: Edition; readonly sha256: string },
    packing: ClipPacking,
    pages: ReviewFiles['pages'],
  ): Promise<ReviewFiles & { readonly there: readonly string[] }> {
    // What the archive has deleted for good goes from the site as well, though a copy of it lies there.
    for (const lane of edition.decks.flatMap((d) => d.lanes)) {
      if (!(await this.clips.has(lane.sha256))) continue;
      const path = `clips/${this.clips.nameOf(lane, packing)}`;
      await folder.put(path, path, async () => {
        const copyOf = await this.clips.path(lane, packing);
        return copyOf === null ? null : { copyOf };
      });
    }
    for (const { sha256, format } of edition.photographs) {
      const photo = await this.photographs.find(sha256);
      if (photo) await folder.put(`photos/${sha256}.${format}`, sha256, () => Promise.resolve({ copyOf: photo.path }));
    }
    const shared = `pictures/${this.shared.nameOf(hash)}`;
    await folder.put(shared, shared, async () => ({ copyOf: await this.shared.path(edition, hash) }));
    const ifThere = (path: string): string | null => (folder.has(path) ? path : null);
    const clip: ReviewFiles['clip'] = (lane) => ifThere(`clips/${this.clips.nameOf(lane, packing)}`);
    const picture: ReviewFiles['picture'] = (sha256, format) => ifThere(`photos/${sha256}.${format}`);
    const there = [
      ...edition.decks.flatMap((d) => d.lanes.map((lane) => clip(lane) ?? '')),
      ...edition.photographs.map((p) => picture(p.sha256, p.format) ?? ''),
    ];
    return { clip, picture, shared, pages, there };
  }

  /** Pages of other units that an edition can lead to: where one comes in, the page is written anew. */
  private linked({ ranking, text, unit }: Edition, pages: ReviewFiles['pages']): (string | undefined)[] {
    const named = [...(ranking?.rows.map((r) => r.unit) ?? []), ...text.alternatives.map((a) => a.unit ?? '')];
    return named.map((id) => (id === unit.id ? undefined : pages.get(id)));
  }
}
