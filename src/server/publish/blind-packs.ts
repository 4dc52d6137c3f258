import { createReadStream } from 'node:fs';
import { readFile, stat } from 'node:fs/promises';
import { packDocumentSchema } from '#contracts/blind-pack';
import { newTestSchema, QUESTIONS } from '#contracts/listening';
import { CODE_NAMES } from '#core/rules/listening/code-names';
import { blindPackPage, packReadMe, type BlindPackPage } from '#press/press';
import type { ClipPreparation } from '../listening/clip-preparation';
import { mustFindTest } from '../listening/must-find-test';
import { findBlindPack } from '../listening/queries/blind-pack';
import { itemsOfTest } from '../listening/queries/listening';
import { sealedKey, tagOf } from '../listening/seal-key';
import type { Database } from '../platform/db/database';
import { Failure } from '../platform/failure';
import { packScript } from '../platform/package-root';
import type { HouseRules } from '../reviews/house-rules';
import { bytesFile, hashOfFile, sentZip, textFile, type Pack, type PackFile } from './sent-zip';

/** Everything that a pack is made of. */
interface Sealed {
  readonly tag: string;
  readonly keyText: string;
  readonly sealed: Buffer;
  readonly isOpen: boolean;
  readonly sealedOn: string;
  /** In the order of the letters. */
  readonly paths: readonly string[];
  readonly page: Omit<BlindPackPage, 'clips' | 'sealed' | 'script'>;
}

/** Blind tests as they are sent out: a page that plays and asks, clips that differ in their samples alone, a sealed key. */
export class BlindPacks {
  constructor(
    private readonly database: Database,
    private readonly clips: ClipPreparation,
    private readonly house: HouseRules,
  ) {}

  /**
   * The page alone: one file with everything inside.
   *
   * @throws Failure `not-found`
   */
  async page(testId: string): Promise<{ name: string; html: string }> {
    const pack = await this.open(testId);
    return { name: `blind-${pack.tag}.html`, html: await this.html(pack) };
  }

  /** Whether all clips of it are still there: those of takes that were deleted are not. */
  async isWhole(testId: string): Promise<boolean> {
    const { paths } = await this.open(testId);
    const there = await Promise.all(paths.map((path) => stat(path).catch(() => null)));
    return there.every((file) => file !== null);
  }

  /**
   * Page, clips and seal as a ZIP.
   *
   * @throws Failure `not-found`
   */
  async zip(testId: string): Promise<Pack> {
    const pack = await this.open(testId);
    const folder = `blind-${pack.tag}`;
    const clips = await Promise.all(
      pack.paths.map(async (path, i): Promise<PackFile> => {
        const { size } = await stat(path).catch(gone);
        return { path: `clips/${CODE_NAMES[i]}.wav`, bytes: size, sha256: await hashOfFile(path), open: () => createReadStream(path) }; // prettier-ignore
      }),
    );
    const files = [
      textFile('read-me.txt', packReadMe({ ...pack.page, clips: clips.map((_, i) => ({ name: CODE_NAMES[i], base64: '' })) })), // prettier-ignore
      textFile('listen.html', await this.html(pack)),
      ...clips,
      bytesFile('key.sealed', pack.sealed),
    ];
    return sentZip(`${folder}.zip`, files.map((f) => ({ ...f, path: `${folder}/${f.path}` })), pack.sealedOn); // prettier-ignore
  }

  /**
   * The key, once it is open: the very text whose hash was made known.
   *
   * @throws Failure `not-found` before
   */
  async key(testId: string): Promise<{ name: string; text: string }> {
    const { isOpen, tag, keyText } = await this.open(testId);
    if (!isOpen) throw new Failure('not-found', 'The key of this pack is sealed until the test is revealed.');
    return { name: `key-${tag}.json`, text: keyText };
  }

  private async html({ paths, sealed, page }: Sealed): Promise<string> {
    const clips = await Promise.all(
      paths.map(async (path, i) => ({ name: CODE_NAMES[i], base64: (await readFile(path).catch(gone)).toString('base64') })), // prettier-ignore
    );
    return blindPackPage({ ...page, clips, sealed: sealed.toString('base64'), script: await readFile(packScript, 'utf8') }); // prettier-ignore
  }

  private async open(testId: string): Promise<Sealed> {
    const row = await mustFindTest(this.database, testId);
    const { pack: settings, attribute } = newTestSchema.parse(row.document);
    const pack = await findBlindPack(this.database, testId);
    if (!pack || !settings) throw new Failure('not-found', 'Nothing is sent out of this test.');
    const items = await itemsOfTest(this.database, testId);
    const names = packDocumentSchema.parse(pack.document).names.map((n) => n.name);
    const tag = tagOf(pack.key_sha256);
    return {
      tag,
      keyText: pack.key_text,
      sealed: sealedKey(pack.key_text, row.secret),
      isOpen: row.revealed_at !== null,
      sealedOn: pack.sealed_on,
      paths: items.map((i) => this.clips.packedPath(testId, i.id)),
      page: {
        ...settings,
        question: QUESTIONS[attribute],
        desk: (await this.house.current()).desk,
        // Who is not asked to guess is told no name.
        names: settings.asks.includes('names') ? names : [],
        tag,
        keySha256: pack.key_sha256,
        sealedOn: pack.sealed_on,
      },
    };
  }
}

const gone = (): never => {
  throw new Failure('not-found', 'A clip of this pack was deleted from the archive; it cannot be sent any more.');
};
