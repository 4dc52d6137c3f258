import { BLOCK_FRAMES } from '../audio/sample-stream';
import type { ChannelBlock } from '../dsp/channel-block';

/**
 * Puts a signal through a block, piece by piece, as a pass over a clip does.
 *
 * @param signal - one channel
 * @param block - the block that the meters share
 * @param visit - pushes it to them
 * @param size - samples of a piece
 */
export function inBlocks(signal: Float64Array, block: ChannelBlock, visit: () => void, size = BLOCK_FRAMES): void {
  for (let at = 0; at < signal.length; at += size) {
    const part = signal.subarray(at, at + size);
    block.next().set(part);
    block.scan(part.length);
    visit();
  }
}
