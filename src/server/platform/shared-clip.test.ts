import { describe, expect, it } from 'vitest';
import { arrivalAt } from '#worker/arrival';
import { bytesOf, inHalves, isShared } from './shared-clip';

describe('A clip that two threads share', () => {
  it('is long', () => {
    expect(isShared(99e6, 1, 2)).toBe(false);
    expect(isShared(100e6, 1, 2)).toBe(true);
  });

  it('leaves no other clip waiting', () => {
    expect(isShared(1e9, 2, 2)).toBe(false);
    expect(isShared(1e9, 5, 2)).toBe(false);
    expect(isShared(1e9, 1, 1)).toBe(false);
    expect(isShared(1e9, 2, 3)).toBe(true);
  });

  it('has no length where there is no file', () => {
    expect(bytesOf('/nowhere/at-all.wav')).toBe(0);
    expect(bytesOf(new URL(import.meta.url).pathname)).toBeGreaterThan(500);
  });
});

describe('The two halves of a clip', () => {
  it('talk with each other, and give what the second one gives', async () => {
    const found = await inHalves(
      async (levels) => levels.postMessage(`spectra of ${await arrivalAt<string>(levels)}`),
      (spectra) => {
        spectra.postMessage('these pauses');
        return arrivalAt<string>(spectra);
      },
    );
    expect(found).toBe('spectra of these pauses');
  });

  it('say why one of them failed: the first, where both did', async () => {
    const none = new Error('no spectra');
    const fails = (error: Error) => () => Promise.reject(error);
    // It hears that nothing will come, though nobody else closed the port.
    const waits = async (spectra: Parameters<typeof arrivalAt>[0]) => {
      if ((await arrivalAt(spectra)) === null) throw new Error('nothing came');
    };
    await expect(inHalves(fails(none), waits)).rejects.toBe(none);
    const levels = new Error('no levels');
    await expect(inHalves(() => Promise.resolve(), fails(levels))).rejects.toBe(levels);
  });
});
