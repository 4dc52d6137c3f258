import { join } from 'node:path';
import { allocateBlock } from '#core/audio/sample-stream';
import { openClip } from '../open-clip';
import { ClipCopy } from '../write-clip';

/** Order to a worker: one recording of several channels as one clip for each. */
export interface SplitChannelsTask {
  readonly path: string;
  /** Folder that the clips are written to. */
  readonly into: string;
}

/** @returns paths of the channels, in order */
export default async function splitChannels({ path, into }: SplitChannelsTask): Promise<string[]> {
  const stream = openClip(path);
  const { format } = stream;
  const paths = Array.from({ length: format.channels }, (_, c) => join(into, `channel-${c + 1}.wav`));
  const copies: ClipCopy[] = [];
  try {
    for (const channel of paths) copies.push(new ClipCopy(channel, format, 1, format.frames));
    const block = allocateBlock(format.channels);
    for (let count = await stream.read(block); count > 0; count = await stream.read(block))
      copies.forEach((copy, c) => copy.add([block[c]], 0, count));
    copies.forEach((copy) => copy.end());
    return paths;
  } finally {
    copies.forEach((copy) => copy.close());
    stream.close();
  }
}
