import type { SampleStream } from '#core/audio/sample-stream';
import { clipStretches } from '#core/measure/clip-stretches';
import { StretchReader, joinStretches, type ClipReadings } from '#core/measure/stretch-reader';
import type { Helper, StretchArrival } from './helper';
import { takeNext, takeNoMore, type TakenCount } from './taken-count';

/** A clip whose stretches several threads measure, each taking the next one that nobody has taken. */
export interface SharedStretches {
  readonly taken: TakenCount;
  /** Samples, of all channels together, from which on a clip has several stretches; usually it is long by then. */
  readonly longFrom?: number;
}

/**
 * Measures stretches until all are taken. Where one cannot be measured nobody takes another: all of the clip will be
 * refused, and nobody should wait for the rest of it.
 *
 * @param stream - the clip
 * @param shared - who takes what
 * @param keep - takes each stretch as it is done
 * @param onProgress - called now and then with the share of the clip that lies behind, 0…1
 */
export async function takeStretches(
  stream: SampleStream,
  { taken, longFrom }: SharedStretches,
  keep: (arrival: StretchArrival) => void,
  onProgress?: (share: number) => void,
): Promise<void> {
  const stretches = clipStretches(stream, longFrom);
  const reader = new StretchReader(stream, 'all', onProgress);
  for (;;) {
    const place = takeNext(taken);
    if (place >= stretches.length) return;
    try {
      keep({ place, readings: await reader.read(stretches[place]) });
    } catch (error) {
      takeNoMore(taken);
      throw error;
    }
  }
}

/**
 * Measures a clip with other threads that tell what they measured. They only help: what they do not bring, for whatever
 * reason, is measured here, so that a clip which cannot be read is refused as it is when nobody helps.
 *
 * @param stream - the clip; it can seek
 * @param shared - who takes what
 * @param helpers - the others
 * @param onProgress - called now and then with a share of the clip that grows, 0…1
 */
export async function readWithOthers(
  stream: SampleStream,
  shared: SharedStretches,
  helpers: readonly Helper[],
  onProgress: (share: number) => void = () => undefined,
): Promise<ClipReadings> {
  const stretches = clipStretches(stream, shared.longFrom);
  const found = new Map<number, ClipReadings>();
  let told = 0;
  const tell = (share: number): void => {
    if (share > told) onProgress((told = share));
  };
  const keep = ({ place, readings }: StretchArrival): void => void found.set(place, readings);
  const arrived = helpers.map((helper) =>
    helper.stretches((arrival) => {
      keep(arrival);
      tell(found.size / stretches.length);
      return found.size === stretches.length;
    }),
  );
  // The same place is read once more below, after whatever lies before it.
  await takeStretches(stream, shared, keep, tell).catch(() => undefined);
  if (found.size < stretches.length) await firstOrAll(arrived);
  let reader: StretchReader | null = null;
  const readings: ClipReadings[] = [];
  for (const [place, stretch] of stretches.entries())
    readings.push(found.get(place) ?? (await (reader ??= new StretchReader(stream, 'all')).read(stretch)));
  return joinStretches(readings);
}

/** Until one of them says that it is enough, or all are over. */
const firstOrAll = (arrived: readonly Promise<'enough' | 'over'>[]): Promise<unknown> =>
  new Promise((resolve) => {
    for (const one of arrived) void one.then((word) => word === 'enough' && resolve(word));
    void Promise.all(arrived).then(resolve);
  });
