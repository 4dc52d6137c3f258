import { MessageChannel } from 'node:worker_threads';
import { describe, expect, it } from 'vitest';
import { memoryStream } from '#core/audio/memory-stream';
import { analyseClip } from '#core/measure/clip-analysis';
import type { ClipReadings } from '#core/measure/stretch-reader';
import { Helper, type HelperMessage, type SpectralOrder } from './helper';

const NOTHING: ClipReadings = {
  frames: 0,
  channels: [],
  waveform: { pairs: new Float32Array(0), framesPerColumn: 64 },
};

async function orderOf(): Promise<SpectralOrder> {
  const order: SpectralOrder[] = [];
  await analyseClip(memoryStream([new Float64Array(8000)], 8000), {
    spectral: (channels, pauses) => (order.push({ channels, pauses, sound: null }), null),
  });
  return order[0];
}

function pair() {
  const { port1, port2 } = new MessageChannel();
  return { helper: new Helper(port1), tell: (message: HelperMessage) => port2.postMessage(message), port: port2 };
}

describe('A helper', () => {
  it('tells its stretches until they are enough, or it has no more', async () => {
    const { helper, tell } = pair();
    const places: number[] = [];
    const found = helper.stretches(({ place }) => places.push(place) === 2);
    for (const place of [4, 1, 9]) tell({ place, readings: NOTHING });
    expect(await found).toBe('enough');
    expect(places.slice(0, 2)).toEqual([4, 1]);
    const other = pair();
    const over = other.helper.stretches(() => false);
    other.tell({ place: 0, readings: NOTHING });
    other.tell(null);
    expect(await over).toBe('over');
    helper.close();
    other.helper.close();
  });

  it('has no more when it dies', async () => {
    const { helper, port } = pair();
    const over = helper.stretches(() => false);
    port.close();
    expect(await over).toBe('over');
  });

  it('answers what it is asked, and what it told before is no answer', async () => {
    const order = await orderOf();
    const { helper, tell, port } = pair();
    const heard = helper.stretches(() => true);
    tell({ place: 0, readings: NOTHING });
    await heard;
    const answer = helper.spectralFigures(order);
    tell(null);
    port.once('message', ({ pauses }: SpectralOrder) => {
      tell({ figures: { aDbfs: pauses.durationS } as never });
    });
    expect(await answer).toEqual({ aDbfs: 1 });
    helper.close();
  });

  it('does not answer where it has not begun, or ends meanwhile', async () => {
    const order = await orderOf();
    const { helper, tell, port } = pair();
    expect(helper.spectralFigures(order)).toBeNull();
    const over = helper.stretches(() => false);
    tell(null);
    await over;
    const answer = helper.spectralFigures(order);
    port.close();
    expect(answer).not.toBeNull();
    expect(await answer).toBeNull();
    expect(helper.spectralFigures(order)).toBeNull();
  });
});
