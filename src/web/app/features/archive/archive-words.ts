import type { ArchiveState } from '#contracts/archive';
import type { Device } from '#contracts/devices';
import { momentDay } from '../../ui/format';

/** What may be said of the clips: no more than was read. */
export function checkedWords({ clips, checked, oldestCheck, setAside }: ArchiveState): string {
  if (clips === 0) return 'There are no clips yet.';
  const wrong = setAside.filter((s) => s.kind === 'clip').length;
  const bad = wrong === 0 ? 'nothing was wrong with them' : `${wrong} of all clips cannot be used as they are`;
  if (checked === 0)
    return wrong === 0
      ? 'No clip has been read again yet; that goes on quietly while Sediment runs.'
      : `No clip has been read again yet; ${bad}.`;
  const since = oldestCheck === null ? '' : `, the oldest reading on ${momentDay(oldestCheck)}`;
  return checked < clips
    ? `${checked} of ${clips} clips were read and held against their names${since}; ${bad}.`
    : `All ${clips} clips were read and held against their names${since}; ${bad}.`;
}

/** The same of photographs and originals; nothing where there are none. */
export function besideWords({ files, filesChecked, setAside }: ArchiveState): string {
  if (files === 0) return '';
  const wrong = setAside.filter((s) => s.kind === 'photograph' || s.kind === 'original').length;
  const bad = wrong === 0 ? 'nothing was wrong with them' : `${wrong} of them cannot be used as they are`;
  const what = files === 1 ? 'photograph or original' : 'photographs and originals of decoded clips';
  if (filesChecked === 0) return `${files} ${what}: not read again yet${wrong === 0 ? '' : `; ${bad}`}.`;
  return `${filesChecked} of ${files} ${what} were read as well; ${bad}.`;
}

/** Below this, recording soon stops. */
const LITTLE_BYTES = 2e9;
export const isLittleSpace = ({ freeBytes }: ArchiveState): boolean => freeBytes < LITTLE_BYTES;

const PLURALS: Readonly<Record<string, string>> = { 'entry of a sheet': 'entries of sheets', points: 'points' };

/** What was noted from a device, most recent first, and when the last of it. */
export function notedWords({ noted }: Device): string {
  if (noted.length === 0) return 'nothing';
  const parts = noted.map(({ what, count }) => `${count} ${count === 1 ? what : (PLURALS[what] ?? `${what}s`)}`);
  const last = noted.map((n) => n.last).reduce((a, b) => (a > b ? a : b));
  return `${parts.join(', ')}; the last on ${momentDay(last)}`;
}
