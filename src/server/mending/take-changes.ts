import { correctionText, fieldChanges } from '#core/rules/correction-text';
import { numberText } from '#core/text/read-number';
import { Failure } from '../platform/failure';
import type { Queryable } from '../platform/db/database';
import { left, refused, type ChangeOf, type PreparedChange } from './prepared-change';
import { findClip } from '../runs/queries/clip';
import { correctTake, correctableTake, putClip, type CorrectableTake } from './queries/correction';

async function findTake(db: Queryable, id: string): Promise<CorrectableTake> {
  const take = await correctableTake(db, id);
  if (!take) throw new Failure('not-found', 'There is no such take.');
  return take;
}

/** What was noted with a take; a level or a speed that the correction does not name stays as it is. */
export async function retake(db: Queryable, asked: ChangeOf<'take'>): Promise<PreparedChange> {
  const take = await findTake(db, asked.take);
  const levels = { levelDbSpl: take.level_db_spl, levelDbu: take.level_dbu, windSpeedMs: take.wind_speed_ms };
  const change = { ...levels, ...asked };
  const before: ChangeOf<'take'> = {
    kind: 'take',
    take: change.take,
    gainDb: take.gain_db,
    distanceM: take.distance_m,
    angleDeg: take.angle_deg,
    // What is not asked for does not change, and is not what stood before.
    ...Object.fromEntries(Object.entries(levels).filter(([key]) => key in asked)),
    settings: take.settings as typeof change.settings,
    note: take.note,
  };
  const text = correctionText(
    `Take “${take.step_title}” of ${take.day}`,
    fieldChanges(takeWords({ ...levels, ...before }), takeWords(change)),
  );
  if (text === null) throw refused('Nothing differs from what is noted.');
  return {
    before,
    text,
    specimens: [take.specimen_id],
    runs: [take.run_id],
    apply: (tx) => correctTake(tx, change),
  };
}

/**
 * A take’s file is another one: one that was brought in for it, or that of another take of its run, which gets its own in
 * return. What was noted with each take stays with it.
 */
export async function putFiles(
  db: Queryable,
  change: ChangeOf<'take-files'>,
  isSound: (sha256: string) => Promise<boolean>,
): Promise<PreparedChange> {
  const takes = await Promise.all(change.files.map(({ take }) => findTake(db, take)));
  const { run_id, day, specimen_id } = takes[0];
  if (takes.some((t) => t.run_id !== run_id)) throw refused('The two takes are of different runs.');
  const before = takes.map((t, i) => ({ take: change.files[i].take, clip: t.clip }));
  const changed = change.files.filter((f, i) => f.clip !== before[i].clip);
  if (changed.length === 0) throw refused('That is its file already.');
  const names = await Promise.all(
    change.files.map(async ({ clip }) => {
      const found = await findClip(db, clip);
      if (!found || !(await isSound(clip)))
        throw refused('The file is not in the archive, or is damaged; upload it first.');
      return found.name;
    }),
  );
  const words = takes.map((t, i) => `“${t.step_title}” is ${names[i]} (was ${t.clip_name})`);
  return {
    before: { kind: 'take-files', files: before },
    text: `Take of ${day}: ${words.join(', ')}`,
    specimens: [specimen_id],
    runs: [run_id],
    clips: changed.map((f) => f.clip),
    apply: async (tx) => {
      for (const { take, clip } of change.files) await putClip(tx, take, clip);
    },
  };
}

/** A take counts, or does not. */
export async function leaveTake(db: Queryable, change: ChangeOf<'take-left-out'>): Promise<PreparedChange> {
  const take = await findTake(db, change.take);
  if (change.isOut && take.counting <= 1)
    throw refused('It is the only take of its run; leave out the whole run instead.');
  return {
    ...(await left(db, 'take', change.take, change.isOut)),
    before: { ...change, isOut: !change.isOut },
    text: `Take “${take.step_title}” of ${take.day} ${change.isOut ? 'left out' : 'taken back'}`,
    specimens: [take.specimen_id],
    runs: [take.run_id],
  };
}

function takeWords({
  gainDb,
  distanceM,
  angleDeg,
  levelDbSpl,
  levelDbu,
  windSpeedMs,
  settings,
  note,
}: ChangeOf<'take'>) {
  const level = (value: number | null | undefined, unit: string): string =>
    value === null || value === undefined ? '' : numberText(value, { unit });
  return {
    gain: gainDb === null ? '' : numberText(gainDb, { unit: 'dB' }),
    distance: distanceM === null ? '' : numberText(100 * distanceM, { unit: 'cm' }),
    angle: angleDeg === null ? '' : numberText(angleDeg, { unit: '°' }),
    calibrator: level(levelDbSpl, 'dB SPL'),
    'level at the input': level(levelDbu, 'dBu'),
    wind: level(windSpeedMs, 'm/s'),
    ...Object.fromEntries(Object.entries(settings).map(([key, value]) => [key, String(value)])),
    note,
  };
}
