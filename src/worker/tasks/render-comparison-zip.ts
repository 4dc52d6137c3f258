import { createWriteStream } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import { ZipFile } from 'yazl';

/** Order to a worker: put files and a text into a ZIP. */
export interface RenderComparisonZipTask {
  readonly files: readonly { readonly path: string; readonly as: string }[];
  readonly text: { readonly as: string; readonly body: string };
  readonly into: string;
}

/** Sound hardly shrinks, so nothing is compressed; counting its check sums is work enough for a thread. */
export default async function renderComparisonZip({ files, text, into }: RenderComparisonZipTask): Promise<void> {
  const zip = new ZipFile();
  for (const { path, as } of files) zip.addFile(path, as, { compress: false });
  zip.addBuffer(Buffer.from(text.body, 'utf8'), text.as);
  zip.end();
  await pipeline(zip.outputStream, createWriteStream(into, { flags: 'wx' }));
}
