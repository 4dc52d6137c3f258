import { packingSchema } from '#contracts/site';
import type { ClipPacking } from './handed-clips';

/** A packing by its name, as the door has let it in. */
export const clipsAs = (name: string): ClipPacking => packingOf(name) ?? { codec: 'flac' };

/** A packing by its name, such as "opus-96"; null where it is none. */
export function packingOf(name: string): ClipPacking | null {
  if (!packingSchema.safeParse(name).success) return null;
  return name === 'flac' ? { codec: 'flac' } : { codec: 'opus', kbps: Number(name.replace('opus-', '')) };
}
