import { expect, it } from 'vitest';
import { takeWords } from './take-words';

it('say what sets a take apart: its conditions, what was done to it, its codec', () => {
  expect(takeWords({}, null)).toBe('');
  expect(takeWords({ voice: 'Ada', pad: 'off' }, null)).toBe('voice Ada');
  expect(takeWords({ voice: 'Ada', place: 'hall', processing: 'low-cut' }, { codec: 'aac', bitRateKbps: 96.4 })).toBe('voice Ada, place hall, processed: low-cut, AAC, 96 kbit/s'); // prettier-ignore
  expect(takeWords({}, { codec: 'pcm-s24', bitRateKbps: 1152 })).toBe('');
});
