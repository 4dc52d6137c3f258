import { fromBuffer, type Entry, type ZipFile } from 'yauzl';

/** Files of a ZIP, read by a library other than the one that wrote it. */
export async function unzipped(bytes: Buffer): Promise<Map<string, Buffer>> {
  const zip = await new Promise<ZipFile>((resolve, reject) => fromBuffer(bytes, { lazyEntries: true }, (error, z) => (error ? reject(error) : resolve(z)))); // prettier-ignore
  const files = new Map<string, Buffer>();
  return new Promise((resolve, reject) => {
    zip.on('error', reject);
    zip.on('end', () => resolve(files));
    zip.on('entry', (entry: Entry) =>
      zip.openReadStream(entry, (error, stream) => {
        if (error) return reject(error);
        const parts: Buffer[] = [];
        stream.on('data', (part: Buffer) => parts.push(part));
        stream.on('error', reject);
        stream.on('end', () => {
          files.set(entry.fileName, Buffer.concat(parts));
          zip.readEntry();
        });
      }),
    );
    zip.readEntry();
  });
}
