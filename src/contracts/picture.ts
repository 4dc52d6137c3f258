import { z } from 'zod';

/** Pictures of an edition, for a film. */
export const PICTURES = {
  figures: 'Figures',
  ranking: 'Where it stands',
  response: 'Frequency response',
  frontier: 'Price and points',
  'lower-third': 'Lower third',
} as const;
export type PictureKind = keyof typeof PICTURES;

const WIDE = { width: 1280, height: 720 };
const SQUARE = { width: 1080, height: 1080 };
/** Sizes with the layout that they are drawn in: what is read is as large in each. */
export const PICTURE_SIZES = {
  '1280x720': { px: WIDE, layout: WIDE },
  '1920x1080': { px: { width: 1920, height: 1080 }, layout: WIDE },
  square: { px: SQUARE, layout: SQUARE },
} as const;
export type PictureSize = keyof typeof PICTURE_SIZES;

export const PICTURE_THEMES = ['chalk', 'basalt'] as const;
export type PictureTheme = (typeof PICTURE_THEMES)[number];

export const pictureKindSchema = z.enum(Object.keys(PICTURES) as [PictureKind, ...PictureKind[]]);
export const pictureQuerySchema = z.object({
  size: z.enum(Object.keys(PICTURE_SIZES) as [PictureSize, ...PictureSize[]]).default('1280x720'),
  theme: z.enum(PICTURE_THEMES).default('chalk'),
});
