import { expect, it } from 'vitest';
import { PICTURE_SIZES } from '#contracts/picture';
import { framedPicture } from './framed-picture';

const COLOURS = { ground: '#fff', ink: '#111', quiet: '#666', mark: '#d4561c' };
const DRAWING = '<svg xmlns="http://www.w3.org/2000/svg" width="640" height="320"><path d="M0 0L9 9"/><text>Hz</text></svg>'; // prettier-ignore
const made = (drawing: string, title: string, size: keyof typeof PICTURE_SIZES) =>
  new DOMParser().parseFromString(framedPicture(drawing, { title, desk: 'Tidewrack & Co' }, PICTURE_SIZES[size], COLOURS), 'image/svg+xml').documentElement; // prettier-ignore

it('is as large as it was asked for, with its title, the desk and the whole drawing in between', () => {
  for (const [size, { px, layout }] of Object.entries(PICTURE_SIZES)) {
    const picture = made(DRAWING, 'Response of Oarlock <Purser> · A', size as keyof typeof PICTURE_SIZES);
    expect([picture.getAttribute('width'), picture.getAttribute('height')].map(Number)).toEqual([px.width, px.height]);
    expect(picture.getAttribute('viewBox')).toBe(`0 0 ${layout.width} ${layout.height}`);
    const texts = [...picture.querySelectorAll('text')].map((t) => t.textContent);
    expect(texts).toEqual(['Response of Oarlock <Purser> · A', 'Hz', 'Tidewrack & Co']);
    const inner = picture.querySelector('svg');
    // Its own measures become what is scaled: nothing of it is cut off, and it lies within the picture.
    expect(inner?.getAttribute('viewBox')).toBe('0 0 640 320');
    const [x, y, w, h] = ['x', 'y', 'width', 'height'].map((name) => Number(inner?.getAttribute(name)));
    expect([x > 0, y > 0, x + w < layout.width, y + h < layout.height]).toEqual([true, true, true, true]);
    expect(inner?.querySelector('path')).not.toBeNull();
  }
});

it('keeps the view of a drawing that has one, and makes a long title smaller', () => {
  const own = made(DRAWING.replace('<svg', '<svg viewBox="0 0 10 10"'), 'x', 'square');
  expect(own.querySelector('svg')?.getAttribute('viewBox')).toBe('0 0 10 10');
  const size = (title: string): number => Number(made(DRAWING, title, '1280x720').querySelector('text')?.getAttribute('font-size')); // prettier-ignore
  expect(size('short')).toBe(40);
  expect(size('x'.repeat(100))).toBeLessThan(25);
});
