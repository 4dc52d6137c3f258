import { expect, it } from 'vitest';
import { PICTURE_SIZES } from '#contracts/picture';
import { framedPicture, measures, withLegend } from './framed-picture';

const COLOURS = { ground: '#fff', ink: '#111', quiet: '#666', mark: '#d4561c' };
const DRAWING = '<svg xmlns="http://www.w3.org/2000/svg" width="640" height="320"><path d="M0 0L9 9"/><text>Hz</text></svg>'; // prettier-ignore
const LEGEND = [{ name: 'Speech', colour: '#d4561c', dash: 0 }, { name: 'Silence', colour: '#333', dash: 2 }]; // prettier-ignore
const made = (drawing: string, title: string, size: keyof typeof PICTURE_SIZES, legend: typeof LEGEND = []) =>
  new DOMParser().parseFromString(framedPicture(drawing, { title, desk: 'Tidewrack & Co', legend }, PICTURE_SIZES[size], COLOURS), 'image/svg+xml').documentElement; // prettier-ignore

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

it('says what its lines are, by colour and dash, above the drawing and never over it', () => {
  const picture = made(DRAWING, 'x', '1280x720', LEGEND);
  expect([...picture.querySelectorAll('text')].map((t) => t.textContent)).toEqual(['x', 'Speech', 'Silence', 'Hz', 'Tidewrack & Co']); // prettier-ignore
  expect([...picture.querySelectorAll('line')].map((l) => [l.getAttribute('stroke'), l.getAttribute('stroke-dasharray')])).toEqual([['#d4561c', 'none'], ['#333', '2 2']]); // prettier-ignore
  const top = (size: 'y' | 'y1', of: string): number => Number(picture.querySelector(of)?.getAttribute(size));
  expect(top('y', 'svg')).toBeGreaterThan(top('y1', 'line'));
  // Many lines take more rows, and the drawing stays below all of them.
  const many = made(DRAWING, 'x', 'square', Array.from({ length: 12 }, (_, i) => ({ name: `A line of some length, ${i}`, colour: '#000', dash: 0 }))); // prettier-ignore
  const ys = [...many.querySelectorAll('line')].map((l) => Number(l.getAttribute('y1')));
  expect(new Set(ys).size).toBeGreaterThan(2);
  expect(Number(many.querySelector('svg')?.getAttribute('y'))).toBeGreaterThan(Math.max(...ys));
});

it('as it is shown a drawing grows by its legend, and stays as it is without one', () => {
  expect(withLegend(DRAWING, [], COLOURS)).toBe(DRAWING);
  const { width, height } = measures(withLegend(DRAWING, LEGEND, COLOURS));
  expect([width, height > 320, height < 360]).toEqual([640, true, true]);
});
