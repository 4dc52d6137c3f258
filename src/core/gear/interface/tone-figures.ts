import { formatNumber } from '../../measure/figure-text';
import { measured, notMeasured, type Bound, type Measurement } from '../../measure/measurement';
import type { QuantityId } from '../../measure/registry';
import { isNoiseLimited } from '../../measure/tone-distortion';
import type { TakeTone, ToneValue } from '../../measure/take-tone';
import { lastTake, type AnalysedTake } from '../run/analysed-take';
import { METER_UNCERTAINTY_DB } from './equivalent-input-noise';
import { crosstalkOf, isOneKilohertz, strongestTone, toneNearOneKilohertz } from './tones-of-role';

/** What is asked for at −60 dBFS may be off by so much: its own level hardly shapes the noise beside it. */
const FAINT_DBFS = [-63, -57] as const;
/** Where there is more beside it, it is no tone alone. */
const LARGEST_REST_DB = -20;
/** The low tone is four times as strong (12.0 dB); what is off by more is another measurement. */
const SMPTE_BALANCE_DB = [10, 14] as const;
const TWIN_BALANCE_DB = 1;

/** Figures of an input by takes of steady tones; those of tones that were not recorded are left out. */
export function toneFigures(takes: readonly AnalysedTake[]): Measurement[] {
  const of = (role: string) => lastTake(takes, role);
  return [
    ...reading(of('faint-tone'), ['dynamicRange'], faintProblem, ({ range, rangeA }) => [
      figure(
        'dynamicRange',
        rangeA,
        `A-weighted, 20 Hz–20 kHz, tone of ${hertz(range.hz)} at ${dbfs(range.levelDbfs)}`,
      ),
    ]),
    ...reading(
      strongestTone(takes, 'full-tone'),
      ['distortion', 'thdTone'],
      toneProblem,
      ({ distortion, thd, thdPlusNoise }) => {
        const at = `tone of ${hertz(distortion.hz)} at ${dbfs(distortion.levelDbfs)}`;
        const bound = isNoiseLimited(distortion) ? 'at-most' : 'exact';
        return [
          figure('distortion', thdPlusNoise, `20 Hz–20 kHz, ${at}`),
          figure('thdTone', thd, `harmonics 2 to 10, ${at}`, bound, harmonics(distortion.harmonicsDb)),
        ];
      },
    ),
    ...reading(
      of('two-tones'),
      ['modulationDistortion'],
      smpteProblem,
      ({ smpte }) =>
      smpte ? [figure('modulationDistortion', smpte, `${hertz(smpte.hz[0])} and ${hertz(smpte.hz[1])}, ${formatNumber(smpte.balanceDb, 1)} dB apart`)] : [], // prettier-ignore
    ),
    ...reading(
      of('twin-tones'),
      ['differenceDistortion'],
      twinProblem,
      ({ twinTone }) =>
      twinTone ? [figure('differenceDistortion', twinTone, `${hertz(twinTone.hz[0])} and ${hertz(twinTone.hz[1])}`)] : [], // prettier-ignore
    ),
    ...mostInput(of('most-input')),
    ...reading(toneNearOneKilohertz(takes, 'one-channel'), ['crosstalk'], channelsProblem, (tone) => {
      const { fed, db, bound } = crosstalkOf(tone);
      return [measured('crosstalk', db, `tone of 1 kHz in channel ${fed + 1} at ${dbfs(tone.channelsDbfs[fed])}`, { bound })]; // prettier-ignore
    }),
    ...reading(
      toneNearOneKilohertz(takes, 'both-channels'),
      ['channelBalance'],
      channelsProblem,
      ({ channelsDbfs: [first, second] }) => [
        measured('channelBalance', second - first, `tone of 1 kHz in both, channel 1 at ${dbfs(first)}`),
      ],
    ),
  ];
}

const hertz = (hz: number): string => (hz >= 10_000 ? `${formatNumber(hz / 1000, 1)} kHz` : `${formatNumber(hz, 0)} Hz`); // prettier-ignore
const dbfs = (db: number): string => `${formatNumber(db, 1)} dBFS`;

const figure = (
  id: QuantityId,
  { db, u }: ToneValue,
  condition: string,
  bound: Bound = 'exact',
  settings: Measurement['settings'] = {},
): Measurement => measured(id, db, condition, { uncertainty: u, bound, settings });

const harmonics = (db: readonly number[]): Record<string, number> =>
  Object.fromEntries(db.slice(0, 4).map((level, i) => [`harmonic${i + 2}Db`, Math.round(level * 10) / 10]));

/** Figures of one take, or why it gives none. */
function reading(
  take: AnalysedTake | undefined,
  ids: readonly QuantityId[],
  problem: (tone: TakeTone) => string | null,
  read: (tone: TakeTone) => Measurement[],
): Measurement[] {
  if (!take) return [];
  const { tone } = take;
  const reason = tone ? problem(tone) : 'The take is too short to read tones from: at least 1.5 s are needed.';
  return reason === null && tone ? read(tone) : ids.map((id) => notMeasured(id, '', reason ?? ''));
}

const CLIPS = 'The take clips: what it shows is the clipping. Turn the tone down and record it again.';

/** Whether what lies beside the tone is less than it by far. */
export const isToneAlone = ({ distortion }: TakeTone): boolean => distortion.thdPlusNoiseDb <= LARGEST_REST_DB;

function toneProblem(tone: TakeTone): string | null {
  if (tone.isClipped) return CLIPS;
  if (!isOneKilohertz(tone.distortion.hz))
    return `The strongest tone lies at ${hertz(tone.distortion.hz)}, not near 1 kHz: it is another tone, or the file's sample rate is not that of the recording.`;
  return isToneAlone(tone) ? null : 'The take holds no tone alone: what lies beside it is as loud.';
}

function faintProblem(tone: TakeTone): string | null {
  const { hz, levelDbfs } = tone.range;
  if (tone.isClipped) return CLIPS;
  if (!isOneKilohertz(hz))
    return `The strongest line lies at ${hertz(hz)}, not near 997 Hz: no tone was played, or another one.`;
  return levelDbfs < FAINT_DBFS[0] || levelDbfs > FAINT_DBFS[1]
    ? `The tone lies at ${dbfs(levelDbfs)}; the dynamic range is read with one at −60 dBFS.`
    : null;
}

function smpteProblem({ isClipped, smpte }: TakeTone): string | null {
  if (isClipped) return CLIPS;
  if (!smpte || smpte.hz[0] > 100 || smpte.hz[1] < 5000) return 'The take does not hold a low and a high tone (60 Hz and 7 kHz).'; // prettier-ignore
  return smpte.balanceDb < SMPTE_BALANCE_DB[0] || smpte.balanceDb > SMPTE_BALANCE_DB[1]
    ? `The low tone is ${formatNumber(smpte.balanceDb, 1)} dB stronger than the high one; it is 12.0 dB (four times) by definition.`
    : null;
}

function twinProblem({ isClipped, twinTone }: TakeTone): string | null {
  if (isClipped) return CLIPS;
  if (!twinTone) return 'The take does not hold two high tones.';
  return Math.abs(twinTone.balanceDb) > TWIN_BALANCE_DB
    ? `The two tones differ by ${formatNumber(Math.abs(twinTone.balanceDb), 1)} dB: they have to be equal.`
    : null;
}

function channelsProblem(tone: TakeTone): string | null {
  return tone.channelsDbfs.length < 2 ? 'The take has one channel; this is read between two.' : toneProblem(tone);
}

function mostInput(take: AnalysedTake | undefined): Measurement[] {
  return reading(take, ['mostInput'], toneProblem, ({ distortion }) => {
    if (!take || take.levelDbu === null)
      return [notMeasured('mostInput', '', 'The level of the tone at the input is not noted.')];
    return [
      measured('mostInput', take.levelDbu - distortion.levelDbfs, `1 kHz, least gain, tone of ${formatNumber(take.levelDbu, 1)} dBu at ${dbfs(distortion.levelDbfs)}`, { uncertainty: METER_UNCERTAINTY_DB }), // prettier-ignore
    ];
  });
}
