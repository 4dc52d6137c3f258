import type { PICTURE_SIZES } from '#contracts/picture';

const SVG = 'http://www.w3.org/2000/svg';
const MARGIN = 48;
const TITLE_PX = 40;
/** Letters are about half as wide as high. */
const LETTER_WIDTH = 0.55;
/** Text of a legend in a film, and beside a drawing as it is shown. */
const FILM_LEGEND_PX = 22;
const LEGEND_PX = 12;

/** Colours by what they are for, as values: a file knows no names. */
export interface FrameColours {
  readonly ground: string;
  readonly ink: string;
  readonly quiet: string;
  readonly mark: string;
}

/** A line of a drawing, by its colour and its dash. */
export interface LegendEntry {
  readonly name: string;
  readonly colour: string;
  /** Length of dashes; 0 is a solid line. */
  readonly dash: number;
}

/** What stands around a drawing; a desk without a name is empty. */
export interface FrameWords {
  readonly title: string;
  readonly desk: string;
  readonly legend: readonly LegendEntry[];
}

/**
 * A drawing as a picture for a film: what it shows on top with what its lines are, the desk's name below, all of it as
 * large as the size asks.
 *
 * @param drawing - a stand-alone SVG document with its own width and height
 * @param words - around it
 * @param size - in pixels, and the layout that it is drawn in
 */
export function framedPicture(
  drawing: string,
  words: FrameWords,
  { px, layout }: (typeof PICTURE_SIZES)[keyof typeof PICTURE_SIZES],
  colours: FrameColours,
): string {
  const { width, height } = layout;
  const picture = emptyPicture(layout, px, colours.ground);
  picture.append(element('rect', { width: 12, height: 96, fill: colours.mark }));
  const across = width - 2 * MARGIN;
  const titlePx = Math.min(TITLE_PX, across / (LETTER_WIDTH * Math.max(1, words.title.length)));
  picture.append(element('text', { x: MARGIN, y: 66, 'font-size': titlePx, 'font-weight': 700, fill: colours.ink }, words.title)); // prettier-ignore
  const legend = legendRows(words.legend, { x: MARGIN, y: 110, width: across }, FILM_LEGEND_PX, colours.ink);
  picture.append(...legend.elements);
  const top = 104 + legend.height;
  picture.append(placed(drawing, { x: MARGIN, y: top, width: across, height: height - top - 70 }));
  picture.append(element('text', { x: width - MARGIN, y: height - 28, 'font-size': 22, 'text-anchor': 'end', fill: colours.quiet }, words.desk)); // prettier-ignore
  return new XMLSerializer().serializeToString(picture);
}

/** A drawing as it is shown, with what its lines are on top of it; one without a legend stays as it is. */
export function withLegend(drawing: string, legend: readonly LegendEntry[], colours: FrameColours): string {
  if (legend.length === 0) return drawing;
  const { width, height } = measures(drawing);
  const rows = legendRows(legend, { x: 12, y: 6, width: width - 24 }, LEGEND_PX, colours.ink);
  const size = { width, height: height + rows.height };
  const picture = emptyPicture(size, size, colours.ground);
  picture.append(...rows.elements, placed(drawing, { x: 0, y: rows.height, width, height }));
  return new XMLSerializer().serializeToString(picture);
}

/** How large a stand-alone SVG document says that it is. */
export function measures(drawing: string): { width: number; height: number } {
  const { documentElement: root } = new DOMParser().parseFromString(drawing, 'image/svg+xml');
  const [width, height] = ['width', 'height'].map((name) => Number.parseFloat(root.getAttribute(name) ?? ''));
  return { width, height };
}

type Size = Readonly<Record<'width' | 'height', number>>;

function emptyPicture(layout: Size, px: Size, ground: string): Element {
  const picture = document.implementation.createDocument(SVG, 'svg').documentElement;
  picture.setAttribute('viewBox', `0 0 ${layout.width} ${layout.height}`);
  picture.setAttribute('width', String(px.width));
  picture.setAttribute('height', String(px.height));
  picture.setAttribute('font-family', "system-ui, 'Helvetica Neue', Arial, sans-serif");
  picture.append(element('rect', { ...layout, fill: ground }));
  return picture;
}

/** A drawing scaled into a place, the whole of it. */
function placed(drawing: string, place: Readonly<Record<'x' | 'y' | 'width' | 'height', number>>): Element {
  const inner = new DOMParser().parseFromString(drawing, 'image/svg+xml').documentElement;
  const own = measures(drawing);
  if (!inner.hasAttribute('viewBox')) inner.setAttribute('viewBox', `0 0 ${own.width} ${own.height}`);
  for (const [name, value] of Object.entries(place)) inner.setAttribute(name, String(value));
  inner.setAttribute('preserveAspectRatio', 'xMidYMid meet');
  return inner;
}

/** Lines with their names, in as many rows as they need. */
function legendRows(
  legend: readonly LegendEntry[],
  { x: left, y: top, width }: { readonly x: number; readonly y: number; readonly width: number },
  px: number,
  ink: string,
): { elements: Element[]; height: number } {
  const elements: Element[] = [];
  const row = 1.6 * px;
  let [x, y] = [left, top];
  for (const { name, colour, dash } of legend) {
    const wide = 2 * px + LETTER_WIDTH * px * name.length + 1.5 * px;
    if (x > left && x + wide > left + width) [x, y] = [left, y + row];
    const middle = y + row / 2;
    elements.push(
      element('line', { x1: x, x2: x + 1.6 * px, y1: middle, y2: middle, stroke: colour, 'stroke-width': px / 7, 'stroke-dasharray': dash === 0 ? 'none' : `${dash} ${dash}` }), // prettier-ignore
      element('text', { x: x + 2 * px, y: middle + px / 3, 'font-size': px, fill: ink }, name),
    );
    x += wide;
  }
  return { elements, height: legend.length === 0 ? 0 : y + row - top };
}

function element(name: string, attributes: Readonly<Record<string, string | number>>, text = ''): Element {
  const made = document.createElementNS(SVG, name);
  for (const [key, value] of Object.entries(attributes)) made.setAttribute(key, String(value));
  made.textContent = text;
  return made;
}
