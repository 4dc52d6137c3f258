/** A file of a bag's payload. */
export interface PayloadFile {
  /** Under data/, with strokes between folders. */
  readonly path: string;
  readonly bytes: number;
  readonly sha256: string;
}

/** What stands in bag-info.txt. */
export interface BagInfo {
  readonly organisation: string;
  readonly day: string;
  readonly identifier: string;
  readonly description: string;
  readonly software: string;
}

const DECLARATION = 'BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n';

/** A name in a manifest: a line's end, and the sign that it is written with, are encoded (RFC 8493, section 2.1.3). */
const encoded = (path: string): string => path.replaceAll('%', '%25').replaceAll('\r', '%0D').replaceAll('\n', '%0A');

/** A value of bag-info.txt stands on one line (section 2.2.2). */
const oneLine = (text: string): string => text.replaceAll(/\s+/g, ' ').trim();

const lines = (files: readonly { readonly path: string; readonly sha256: string }[]): string =>
  files.map(({ path, sha256 }) => `${sha256}  ${encoded(path)}\n`).join('');

/**
 * Tag files of a bag with SHA-256, without the tag manifest, which needs their own hashes (RFC 8493).
 *
 * @param payload - every file under data/, in the order of the manifest
 * @returns by their names at the top of the bag
 */
export function bagTags(payload: readonly PayloadFile[], info: BagInfo): Readonly<Record<string, string>> {
  const octets = payload.reduce((sum, f) => sum + f.bytes, 0);
  const fields: [string, string][] = [
    ['Source-Organization', oneLine(info.organisation)],
    ['External-Description', oneLine(info.description)],
    ['External-Identifier', oneLine(info.identifier)],
    ['Bagging-Date', info.day],
    ['Bag-Software-Agent', oneLine(info.software)],
    // Section 2.2.2: octets, a dot, files.
    ['Payload-Oxum', `${octets}.${payload.length}`],
  ];
  return {
    'bagit.txt': DECLARATION,
    'bag-info.txt': fields.flatMap(([label, value]) => (value === '' ? [] : [`${label}: ${value}\n`])).join(''),
    'manifest-sha256.txt': lines(payload.map((f) => ({ ...f, path: `data/${f.path}` }))),
  };
}

/** The tag manifest: every tag file but itself (section 2.2.1). */
export const tagManifest = (tags: readonly { readonly path: string; readonly sha256: string }[]): string => lines(tags);
