import { describe, expect, it } from 'vitest';
import { nameAfterUnit, variantLabel } from './variant-rules';

const unit = { maker: 'Oarlock', model: 'Purser', label: 'A' };
const usb = { ...unit, label: variantLabel('A', 'USB'), configuration: 'USB' };

describe('a configuration, when its unit is given another name', () => {
  it('is of the same maker and model, and its label goes with that of the unit', () => {
    expect(nameAfterUnit(usb, unit, { ...unit, maker: 'Oarlocke', model: 'Purser 2' })).toEqual({ maker: 'Oarlocke', model: 'Purser 2', label: 'A, USB' }); // prettier-ignore
    expect(nameAfterUnit(usb, unit, { ...unit, label: 'B' })).toEqual({ ...unit, label: 'B, USB' });
  });

  it('keeps a label of its own, and a name of its own', () => {
    const own = { ...usb, label: 'by cable' };
    expect(nameAfterUnit(own, unit, { ...unit, label: 'B' })).toBeNull();
    expect(nameAfterUnit(own, unit, { ...unit, model: 'Purser 2' })).toEqual({ ...unit, model: 'Purser 2', label: 'by cable' }); // prettier-ignore
    expect(nameAfterUnit({ ...usb, model: 'Purser U' }, unit, { ...unit, label: 'B' })).toBeNull();
    expect(nameAfterUnit({ ...usb, maker: 'Marlfen' }, unit, { ...unit, label: 'B' })).toBeNull();
  });

  it('comes back with it', () => {
    const after = { maker: 'Oarlocke', model: 'Purser 2', label: 'B' };
    const there = nameAfterUnit(usb, unit, after);
    expect(there && nameAfterUnit({ ...there, configuration: 'USB' }, after, unit)).toEqual({
      ...unit,
      label: 'A, USB',
    });
  });
});
