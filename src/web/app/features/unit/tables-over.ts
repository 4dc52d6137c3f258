import type { Curves } from '#contracts/curves';
import type { FiguresOver } from '../../ui/figures-over';
import { formatNumber } from '../../ui/format';

/** What a run has over gain, level, frequency and the speed of the wind, in the order in which it is shown. */
export function tablesOver(curves: Curves): FiguresOver[] {
  const { noiseByGain, distortionByLevel, channelsByFrequency, holesByDistance, windBySpeed } = curves;
  return [
    ...(noiseByGain ? [overGain(noiseByGain)] : []),
    ...(distortionByLevel ? [overLevel(distortionByLevel)] : []),
    ...(channelsByFrequency ? [overFrequency(channelsByFrequency)] : []),
    ...(holesByDistance ? [overDistance(holesByDistance)] : []),
    ...(windBySpeed ? [overSpeed(windBySpeed)] : []),
  ];
}

const overGain = (points: NonNullable<Curves['noiseByGain']>): FiguresOver => ({
  title: 'Input noise over gain',
  caption: 'Equivalent input noise with 150 Ω, A-weighted; where little gain is used, the converter’s own noise shows',
  over: null,
  columns: points.map((p) => `${formatNumber(p.gainDb, 0)} dB`),
  rows: [{ name: '', quantity: 'einA', cells: points.map((p) => ({ value: p.einADbu, uncertainty: p.u })) }],
});

const overLevel = (points: NonNullable<Curves['distortionByLevel']>): FiguresOver => ({
  title: 'Distortion over level',
  caption: 'Re the tone of 1 kHz; where THD+N grows as the tone falls it is the noise, which stays as it is',
  over: 'Tone',
  columns: points.map((p) => `${formatNumber(p.levelDbfs, 1)} dBFS`),
  rows: [
    { name: 'THD+N', quantity: 'distortion', cells: points.map((p) => ({ value: p.thdPlusNoiseDb, uncertainty: p.thdPlusNoiseU })) }, // prettier-ignore
    { name: 'Harmonics', quantity: 'thdTone', cells: points.map((p) => ({ value: p.thdDb, uncertainty: p.thdU, bound: p.thdBound })) }, // prettier-ignore
  ],
});

function overFrequency(points: NonNullable<Curves['channelsByFrequency']>): FiguresOver {
  const rows: FiguresOver['rows'] = [
    { name: 'Crosstalk', quantity: 'crosstalk', cells: points.map((p) => ({ value: p.crosstalkDb, bound: p.crosstalkBound })) }, // prettier-ignore
    { name: 'Second channel re the first', quantity: 'channelBalance', cells: points.map((p) => ({ value: p.balanceDb })) }, // prettier-ignore
  ];
  return {
    title: 'Channels over frequency',
    caption: 'Steady tones; crosstalk of the channel that is not fed, re the one that is',
    over: 'Tone',
    columns: points.map((p) => (p.hz < 1000 ? `${formatNumber(p.hz, 0)} Hz` : `${formatNumber(p.hz / 1000, 1)} kHz`)),
    rows: rows.filter((row) => row.cells.some((c) => c.value !== null)),
  };
}

const overDistance = (stretches: NonNullable<Curves['holesByDistance']>): FiguresOver => ({
  title: 'Link over distance',
  caption: 'Gaps and repeats of 5 ms or more on the way out, from one noted distance to the next',
  over: null,
  columns: stretches.map((s) => `${formatNumber(s.fromM, 0)}–${formatNumber(s.toM, 0)} m`),
  rows: [{ name: '', quantity: 'dropOuts', cells: stretches.map((s) => ({ value: s.count })) }],
});

const overSpeed = (points: NonNullable<Curves['windBySpeed']>): FiguresOver => ({
  title: 'Wind',
  caption: 'Re speech at equal gain; from −10 dB, A-weighted, it hides the words (common practice)',
  over: 'Wind',
  columns: points.map((p) => `${formatNumber(p.speedMs, 1)} m/s`),
  rows: [
    { name: 'A-weighted', quantity: 'windA', cells: points.map((p) => ({ value: p.aDb, bound: p.bound })) },
    { name: 'Below 200 Hz', quantity: 'windLow', cells: points.map((p) => ({ value: p.lowDb, bound: p.bound })) },
  ],
});
