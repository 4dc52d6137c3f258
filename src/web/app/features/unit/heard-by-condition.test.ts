import { expect, it } from 'vitest';
import type { Take } from '#contracts/specimen';
import { heardByCondition } from './heard-by-condition';

const take = (id: string, step: string, settings: Take['settings'], isMeasured = true): Take => ({ id, step, stepTitle: `The ${step}`, settings, summary: isMeasured ? {} : null }) as Take; // prettier-ignore
const [ada, bo] = ['Ada', 'Bo'].map((voice) => ({ voice, place: null, mount: null }));

it('of each voice the last raw take of a step, the one that counts first; steps of one voice alone are left out', () => {
  const takes = [
    take('1', 'speech', { voice: 'Bo' }),
    take('2', 'speech', { voice: 'Ada' }),
    take('3', 'speech', { voice: 'Ada' }),
    take('4', 'speech', { voice: 'Ada', processing: 'low-cut' }),
    take('5', 'rear', { voice: 'Ada' }),
    take('6', 'silence', {}),
    take('7', 'speech', { voice: 'Bo' }, false),
  ];
  expect(heardByCondition(takes, [ada, bo])).toEqual([{ title: 'The speech', takes: ['3', '1'] }]);
});
