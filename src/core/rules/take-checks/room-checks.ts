import { doLinesMatter } from '../lines-that-matter';
import type { NoiseFindingKind } from '../../measure/noise-finding';
import { atUnityGain, dbText, isSpoken, limitOf, timeText, type CheckedTake, type Finding } from './take-check';

/** A silent take this much louder than the unit's other ones is not silent. Common practice, no source, as all limits here. */
const LOUDER_SILENCE_DB = 6;
/** Hum this far above what the unit had before is news. */
const MORE_HUM_DB = 6;
/** Hum or lines nearer to speech than this are heard in pauses. */
const AUDIBLE_RE_SPEECH_DB = -55;
/** More low end than in the unit's other takes of the step: something rolled past. */
const RUMBLE_DB = 8;
const RUMBLE_BANDS_HZ: readonly number[] = [25, 31.5, 40, 50, 63, 80];

/** A silent step at which something is heard, or that is louder than the unit was before. */
export function silence(take: CheckedTake): Finding | null {
  if (take.playKind !== 'silence') return null;
  const { clip } = take;
  const finding = (what: string): Finding => ({
    check: 'silence',
    weight: 'redo',
    what,
    next: 'Wait until it is quiet, hold still, and redo at the same gain.',
  });
  if (clip.speech.length > 0) return finding(`Somebody or something is heard at ${timeText(clip.speech[0].startS)}.`);
  const level = quietAtUnityGain(take);
  const before = take.others
    .filter((o) => o.isNorm && o.isSameUnit && o.role === 'silence')
    .map(quietAtUnityGain)
    .filter((x) => x !== null);
  if (level === null || before.length === 0) return null;
  const more = level - Math.min(...before);
  return more > limitOf(take, 'silence', LOUDER_SILENCE_DB)
    ? finding(`${dbText(more)} dB louder than the quietest silence of this unit at the same gain.`)
    : null;
}

const quietAtUnityGain = (t: { gainDb: number | null; clip: { pauseDbfsA: number | null } }): number | null =>
  t.gainDb === null || t.clip.pauseDbfsA === null ? null : t.clip.pauseDbfsA - t.gainDb;

/** A sound in a silent take; more low end than in other takes of a spoken one. */
export function event(take: CheckedTake): Finding | null {
  const { clip } = take;
  if (!isSpoken(take) && take.playKind !== 'silence') return null;
  const found = clip.events.filter((e) => e.endS - e.startS >= 0.04 && e.startS > 0.3 && e.endS < clip.durationS - 0.3);
  if (take.playKind === 'silence' && found.length > 0) {
    return {
      check: 'event',
      weight: 'redo',
      what: `Something is heard at ${found.map((e) => timeText(e.startS)).join(', ')}.`,
      next: 'Listen to that place; redo when the room is quiet.',
    };
  }
  const more = rumble(take);
  return more !== null && more > limitOf(take, 'event', RUMBLE_DB)
    ? {
        check: 'event',
        weight: 'look',
        what: `${dbText(more)} dB more below 90 Hz than in the other takes of this step: a car, a lorry, a door?`,
        next: 'Listen to it; redo if something passed.',
      }
    : null;
}

/** Low end re loudness, against the median of the unit's other takes of the step; null where it cannot be told. */
function rumble(take: CheckedTake): number | null {
  const low = ({ clip }: { clip: CheckedTake['clip'] }): number | null => {
    if (clip.integratedLufs === null) return null;
    const powers = clip.thirdOctave.flatMap((b) =>
      RUMBLE_BANDS_HZ.includes(b.centreHz) && b.levelDbfs !== null ? [10 ** (b.levelDbfs / 10)] : [],
    );
    return powers.length === 0 ? null : 10 * Math.log10(powers.reduce((a, b) => a + b, 0)) - clip.integratedLufs;
  };
  const before = take.others
    .filter((o) => o.isNorm && o.isSameUnit && o.step === take.step.id)
    .map(low)
    .filter((x) => x !== null)
    .sort((a, b) => a - b);
  const own = low(take);
  return own === null || before.length === 0 ? null : own - before[Math.floor((before.length - 1) / 2)];
}

/** Speech level that lines are held against: the take's own, or that of another take of the unit at equal gain. */
function speechAtUnityGain(take: CheckedTake): number | null {
  if (isSpoken(take)) return atUnityGain(take);
  const speech = take.others.find((o) => o.isSameUnit && o.isToday && o.role === 'speech');
  return speech ? atUnityGain(speech) : null;
}

/** Where a tone is played, its lines are the signal. */
const showsNoise = (take: CheckedTake): boolean => isSpoken(take) || take.playKind === 'silence';

/** Mains hum that the unit did not have before, or that is heard beside speech. */
export function hum(take: CheckedTake): Finding | null {
  const { clip, gainDb } = take;
  const total = clip.hum?.totalDbfs ?? null;
  if (!showsNoise(take) || !clip.hum || total === null || clip.hum.mainsHz === null) return null;
  if (!doLinesMatter(total, clip.pauseDbfsA)) return null;
  const name = `Hum of ${clip.hum.mainsHz} Hz and its multiples, ${dbText(total)} dBFS`;
  const next = 'Turn the unit, move it away from transformers and dimmers, try another cable or socket; redo.';
  const before = take.others
    .filter((o) => o.isNorm && o.isSameUnit && o.role === take.role && o.gainDb !== null)
    .map((o) => ({ level: o.clip.hum?.totalDbfs ?? null, gainDb: o.gainDb ?? 0 }));
  if (before.length > 0 && gainDb !== null) {
    const known = before.flatMap((b) => (b.level === null ? [] : [b.level - b.gainDb]));
    // Where the earlier takes had none, they still say how little it was: no more than their quiet.
    if (known.length === 0)
      return { check: 'hum', weight: 'look', what: `${name}; the unit's earlier takes had none.`, next };
    const more = total - gainDb - Math.max(...known);
    return more > limitOf(take, 'hum', MORE_HUM_DB)
      ? { check: 'hum', weight: 'redo', what: `${name}: ${dbText(more)} dB more than ever with this unit.`, next }
      : null;
  }
  const speech = speechAtUnityGain(take);
  const relative = speech === null || gainDb === null ? null : total - gainDb - speech;
  return relative !== null && relative > AUDIBLE_RE_SPEECH_DB
    ? { check: 'hum', weight: 'look', what: `${name}, ${dbText(relative)} dB re speech.`, next }
    : null;
}

/** Telephone bursts, bus whine and other steady tones. */
export function interference(take: CheckedTake): Finding | null {
  const { clip, gainDb } = take;
  const found = clip.interference;
  if (!showsNoise(take) || !found || found.totalDbfs === null) return null;
  if (!doLinesMatter(found.totalDbfs, clip.pauseDbfsA)) return null;
  if (found.isRadio) {
    return {
      check: 'interference',
      weight: 'redo',
      what: `Bursts 217 times a second, ${dbText(found.totalDbfs)} dBFS: a telephone.`,
      next: 'Take telephones out of the room or into flight mode; redo.',
    };
  }
  const speech = speechAtUnityGain(take);
  const relative = speech === null || gainDb === null ? null : found.totalDbfs - gainDb - speech;
  if (relative === null || relative <= limitOf(take, 'interference', AUDIBLE_RE_SPEECH_DB)) return null;
  return {
    check: 'interference',
    weight: 'look',
    what: `${found.isBus ? 'Lines 1 kHz apart, as a computer’s bus makes them' : 'Steady tones'}, ${dbText(relative)} dB re speech.`,
    next: 'Try another cable, socket or a battery-powered computer; keep it if it belongs to the unit.',
  };
}

/** What hides the noise, and what to do about it. */
const HIDES_NOISE: Partial<Record<NoiseFindingKind, string>> = {
  'digital-silence': 'Switch gates and noise reduction off; redo.',
  gate: 'Switch gates, expanders and noise reduction off; redo.',
  'automatic-gain': 'Switch automatic gain off; redo.',
};

/** A gate or automatic gain: the noise of the pauses is not that under the words. */
export function pauses(take: CheckedTake): Finding | null {
  if (!isSpoken(take) && take.playKind !== 'silence') return null;
  const found = take.clip.pauseFindings.find((f) => HIDES_NOISE[f.kind] !== undefined);
  return found
    ? { check: 'pauses', weight: 'look', what: `${capital(found.text)}.`, next: HIDES_NOISE[found.kind] ?? '' }
    : null;
}

const capital = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1).replace(/\.$/, '')}`;
