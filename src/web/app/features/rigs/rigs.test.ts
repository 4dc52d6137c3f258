import { describe, expect, it } from 'vitest';
import { rowOf } from '../../ui/rig-health';
import { resultText } from './rigs';

describe('the rig in words', () => {
  it('says what a calibration gives, with unit and spread', () => {
    const base = { id: '1', day: '2026-01-01', fedIn: 94, gainDb: 30, read: -18, clip: null, note: '' };
    expect(resultText({ ...base, kind: 'loopback', result: 5.4, uncertainty: null })).toBe('5.400 ms round trip');
    expect(resultText({ ...base, kind: 'electrical', result: 14, uncertainty: 0.05 })).toBe(
      '14.00 ±0.05 dBu at full scale and 0 dB of gain',
    );
    expect(resultText({ ...base, kind: 'sound-level', result: -48, uncertainty: 0.17 })).toContain(
      '−48.00 ±0.17 dBFS at 94 dB SPL',
    );
  });
  it('draws history, limits and today on one scale', () => {
    const row = rowOf({
      quantity: 'noiseReSpeechA',
      verdict: 'off',
      today: -64,
      usual: -70,
      offset: 6,
      offsetUncertainty: 0.5,
      spread: 0.4,
      limit: 1.5,
      found80: 2,
      count: 2,
      history: [
        { day: '2026-01-01', rig: null, value: -70.2 },
        { day: '2026-02-01', rig: null, value: -69.8 },
      ],
    });
    expect(row).toMatchObject({ today: '−64.0 dB(A)', usual: '−70.0', offset: '+6.0', limit: '±1.5' });
    expect(row.todayY).toBeLessThan(row.band?.top ?? 0);
    expect(row.dots).toHaveLength(2);
    expect(row.dots[0].y).toBeGreaterThan(row.dots[1].y);
  });
});
