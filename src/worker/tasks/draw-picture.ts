import { readFile, writeFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { initWasm, Resvg } from '@resvg/resvg-wasm';
import { sfntOf } from '../woff';

/** Order to a worker: an SVG as a PNG of the size that it names. */
export interface DrawPictureTask {
  readonly svg: string;
  readonly into: string;
}

const FAMILY = 'Archivo';
const FONTS = ['latin-400', 'latin-700', 'latin-ext-400', 'latin-ext-700'];
const here = createRequire(import.meta.url);
/** Fonts of the house, unpacked once in a thread. */
let ready: Promise<Uint8Array[]> | null = null;

/** Texts are drawn with the font that ships, whatever fonts the machine has: the same picture everywhere. */
export default async function drawPicture({ svg, into }: DrawPictureTask): Promise<void> {
  ready ??= prepare();
  const fontBuffers = await ready;
  const font = { fontBuffers, defaultFontFamily: FAMILY, sansSerifFamily: FAMILY };
  const drawing = new Resvg(svg, { font });
  try {
    const image = drawing.render();
    await writeFile(into, image.asPng());
    image.free();
  } finally {
    drawing.free();
  }
}

async function prepare(): Promise<Uint8Array[]> {
  await initWasm(await readFile(here.resolve('@resvg/resvg-wasm/index_bg.wasm')));
  return Promise.all(
    FONTS.map(async (name) => sfntOf(await readFile(here.resolve(`@fontsource/archivo/files/archivo-${name}-normal.woff`)))), // prettier-ignore
  );
}
