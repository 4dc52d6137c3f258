import { describe, expect, it } from 'vitest';
import { CLOSE, slot, SPEECH, take } from '../../testing/session-in-small';
import { benchOrder } from './bench-order';

const CHOICE = { talker: 'high', room: 'loft', microphone: 'even', interface: 'new', faults: ['hum' as const] };
const NOTED = { gainDb: 33, distanceM: null, angleDeg: null };

describe('what the simulated bench plays', () => {
  it('takes gain, place and faults from what is noted and chosen, and the place of the step where none is noted', () => {
    expect(benchOrder('5', slot([]), SPEECH, CHOICE, NOTED)).toMatchObject({
      gainDb: 33,
      distanceM: 0.15,
      angleDeg: 0,
      room: 'loft',
      faults: ['hum'],
      seed: '5/1/speech/1',
    });
    const moved = benchOrder('5', slot([]), SPEECH, CHOICE, { gainDb: null, distanceM: 0.3, angleDeg: 90 });
    expect(moved).toMatchObject({ gainDb: 40, distanceM: 0.3, angleDeg: 90 });
  });

  it('is another take each time', () => {
    const again = slot([take(1, SPEECH, 'retaken'), take(2, CLOSE, 'kept'), take(3, SPEECH, 'open')]);
    expect(benchOrder('5', again, SPEECH, CHOICE, NOTED).seed).toBe('5/1/speech/3');
    expect(benchOrder('5', again, CLOSE, CHOICE, NOTED).seed).toBe('5/1/close/2');
  });

  it('plays a sweep where nothing echoes, unless the room is what is measured', () => {
    const sweep = { ...SPEECH, id: 'sweep', play: { kind: 'sweep' as const, text: null } };
    expect(benchOrder('5', slot([]), sweep, CHOICE, NOTED).room).toBe('crate');
    const tone = { ...SPEECH, id: 'calibration', play: { kind: 'tone' as const, text: null } };
    expect(benchOrder('5', slot([]), tone, CHOICE, NOTED).room).toBe('crate');
    expect(benchOrder('5', slot([]), { ...sweep, role: 'room' as const }, CHOICE, NOTED).room).toBe('loft');
  });
});
