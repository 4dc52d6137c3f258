import { describe, expect, it } from 'vitest';
import { daysBetween, figureText, formatNumber, formatPrice, formatTime } from './format';

describe('numbers for people', () => {
  it('have a true minus, fixed decimals, and no negative zero', () => {
    expect(formatNumber(-64.84, 1)).toBe('−64.8');
    expect(formatNumber(-0.04, 1)).toBe('0.0');
    expect(formatNumber(-0.4, 0)).toBe('0');
    expect(formatNumber(3, 2)).toBe('3.00');
  });

  it('stand with unit and spread; "not measured" is not zero', () => {
    expect(figureText('noiseReSpeechA', { value: -64.84, uncertainty: 0.61 })).toEqual({
      value: '−64.8',
      spread: '±0.6',
      another: '',
      unit: 'dB(A)',
    });
    expect(figureText('noiseReSpeechA', { value: null })).toEqual({
      value: 'not measured',
      spread: '',
      another: '',
      unit: '',
    });
    expect(figureText('rearRejection', { value: 17.4, uncertainty: null, bound: 'at-least' })).toEqual({
      value: '≥ 17.4',
      spread: '',
      another: '',
      unit: 'dB',
    });
    // A tiny uncertainty is not shown as none.
    expect(figureText('rearRejection', { value: 17.4, uncertainty: 0.01 }).spread).toBe('±0.1');
  });

  it('say times, prices and ages', () => {
    expect([formatTime(8.9), formatTime(75), formatTime(3723)]).toEqual(['0:08', '1:15', '1:02:03']);
    expect([formatPrice(129, 'EUR'), formatPrice(129.5, 'EUR')]).toEqual(['129 EUR', '129.50 EUR']);
    expect(daysBetween('2024-02-28', '2024-03-01')).toBe(2);
  });
});
