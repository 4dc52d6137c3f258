import type { PICTURE_SIZES } from '#contracts/picture';

const SVG = 'http://www.w3.org/2000/svg';
const MARGIN = 48;
const TITLE_PX = 40;
/** Letters are about half as wide as high. */
const LETTER_WIDTH = 0.55;

/** Colours by what they are for, as values: a file knows no names. */
export interface FrameColours {
  readonly ground: string;
  readonly ink: string;
  readonly quiet: string;
  readonly mark: string;
}

/**
 * A drawing as a picture for a film: what it shows on top, the desk's name below, all of it as large as the size asks.
 *
 * @param drawing - a stand-alone SVG document with its own width and height
 * @param words - title of the drawing, and the desk; empty for one without a name
 * @param size - in pixels, and the layout that it is drawn in
 */
export function framedPicture(
  drawing: string,
  words: { readonly title: string; readonly desk: string },
  { px, layout }: (typeof PICTURE_SIZES)[keyof typeof PICTURE_SIZES],
  colours: FrameColours,
): string {
  const inner = new DOMParser().parseFromString(drawing, 'image/svg+xml').documentElement;
  const own = ['width', 'height'].map((name) => Number.parseFloat(inner.getAttribute(name) ?? ''));
  if (!inner.hasAttribute('viewBox')) inner.setAttribute('viewBox', `0 0 ${own[0]} ${own[1]}`);
  const { width, height } = layout;
  const place = { x: MARGIN, y: 110, width: width - 2 * MARGIN, height: height - 110 - 70 };
  for (const [name, value] of Object.entries(place)) inner.setAttribute(name, String(value));
  inner.setAttribute('preserveAspectRatio', 'xMidYMid meet');

  const picture = document.implementation.createDocument(SVG, 'svg').documentElement;
  const add = (name: string, attributes: Readonly<Record<string, string | number>>, text = ''): void => {
    const element = document.createElementNS(SVG, name);
    for (const [key, value] of Object.entries(attributes)) element.setAttribute(key, String(value));
    element.textContent = text;
    picture.append(element);
  };
  picture.setAttribute('viewBox', `0 0 ${width} ${height}`);
  picture.setAttribute('width', String(px.width));
  picture.setAttribute('height', String(px.height));
  picture.setAttribute('font-family', "system-ui, 'Helvetica Neue', Arial, sans-serif");
  add('rect', { width, height, fill: colours.ground });
  add('rect', { width: 12, height: 96, fill: colours.mark });
  const titlePx = Math.min(TITLE_PX, place.width / (LETTER_WIDTH * Math.max(1, words.title.length)));
  add('text', { x: MARGIN, y: 66, 'font-size': titlePx, 'font-weight': 700, fill: colours.ink }, words.title);
  picture.append(inner);
  add('text', { x: width - MARGIN, y: height - 28, 'font-size': 22, 'text-anchor': 'end', fill: colours.quiet }, words.desk); // prettier-ignore
  return new XMLSerializer().serializeToString(picture);
}
