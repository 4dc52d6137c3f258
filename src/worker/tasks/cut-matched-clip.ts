import { closeSync, openSync, writeSync } from 'node:fs';
import { copyWithGain } from '../match-clip';

/** Order to a worker: a copy of a clip with a gain. */
export interface CutMatchedClipTask {
  readonly path: string;
  readonly gainDb: number;
  readonly into: string;
}

export default async function cutMatchedClip({ path, gainDb, into }: CutMatchedClipTask): Promise<void> {
  const file = openSync(into, 'wx');
  try {
    await copyWithGain(path, gainDb, (piece) => writeSync(file, piece));
  } finally {
    closeSync(file);
  }
}
