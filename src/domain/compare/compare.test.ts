import { describe, expect, it } from 'vitest';
import { protocolSchema, type Protocol } from '#contracts/protocol';
import { appliedGains } from './applied-gains';
import type { ComparedFigures, ComparedTake } from './compared-take';
import { laneWarning } from './lane-warning';
import { fileName, levelsText } from './levels-text';
import { withWithout } from './with-without';

const step = (id: string, change: object = {}) => ({
  id,
  title: id,
  instruction: 'Read.',
  play: { kind: 'text' },
  ...change,
});
const protocolOf = (steps: readonly object[], version = 1): Protocol =>
  protocolSchema.parse({ id: 'pairs', version, name: 'Pairs', category: 'accessory', steps });
const DOCUMENT = protocolOf([
  step('bare'),
  step('shielded', { pair: { step: 'bare', varies: 'shield' }, accessories: ['shield'] }),
  step('alone'),
]);
const figures = (
  integratedLufs: number | null,
  truePeakDbtp: number | null,
  noiseA: number | null = null,
): ComparedFigures => ({
  loudness: { integratedLufs, truePeakDbtp },
  noise: {
    reSpeechDb: { z: null, a: noiseA },
    thirdOctave: [{ centreHz: 100, levelDbfs: noiseA === null ? null : noiseA - 20 }],
  },
  thirdOctave: [
    { centreHz: 100, levelDbfs: integratedLufs },
    { centreHz: 200, levelDbfs: null },
  ],
  measurements: {},
});
const take = (id: string, change: Partial<ComparedTake> = {}): ComparedTake => ({
  takeId: `take ${id}`,
  step: id,
  stepTitle: id,
  protocol: 'pairs',
  protocolVersion: 1,
  rig: 'Desk',
  gainDb: 40,
  dial: null,
  processing: null,
  sound: null,
  document: DOCUMENT,
  summary: figures(-20, -3),
  ...change,
});

describe('applied gains', () => {
  const quiet = take('a', { summary: figures(-30, -12) });
  const loud = take('b', { summary: figures(-20, -2), gainDb: 34 });

  it('bring all to −23 LUFS, and are held back together where one would come too near to full scale', () => {
    // 7 dB up and 3 dB down: the peaks lie at −5 and −5 dBTP.
    expect(appliedGains([quiet, loud], [-30, -20], 'loudness')).toEqual({ gains: [7, -3], targetLufs: -23, heldBack: null, gainRefused: null }); // prettier-ignore
    const peaky = take('c', { summary: figures(-30, -4) });
    const held = appliedGains([loud, peaky], [-20, -30], 'loudness');
    // 7 dB would bring its −4 dBTP to +3; the ceiling is −1: all 4 dB lower.
    expect(held.heldBack).toBe(1);
    expect(held.gains).toEqual([expect.closeTo(-7, 9), expect.closeTo(3, 9)]);
    expect(held.targetLufs).toBeCloseTo(-27, 9);
  });

  it('leave silence with the others, never louder than it was recorded', () => {
    expect(appliedGains([quiet, take('s', { summary: figures(null, null) })], [-30, null], 'loudness').gains).toEqual([7, 0]); // prettier-ignore
    expect(appliedGains([take('s')], [null], 'loudness')).toMatchObject({ gains: [0], targetLufs: null });
  });

  it('by the gain of the rig leave one unit louder than another, as it is; or touch nothing', () => {
    expect(appliedGains([quiet, loud], [-30, -20], 'gain')).toEqual({
      gains: [-6, 0],
      targetLufs: null,
      heldBack: null,
      gainRefused: null,
    });
    const full = { ...loud, summary: figures(-20, -0.25) };
    expect(appliedGains([quiet, full], [-30, -20], 'gain')).toEqual({ gains: [-6.75, -0.75], targetLufs: null, heldBack: 1, gainRefused: null }); // prettier-ignore
    expect(appliedGains([quiet, take('b')], [-30, -20], 'none')).toEqual({ gains: [0, 0], targetLufs: null, heldBack: null, gainRefused: null }); // prettier-ignore
  });
});

describe('gains that are no decibels', () => {
  const at = (id: string, dial: string | null) => take(id, { gainDb: null, dial });

  it('are even at one place of the dial', () => {
    expect(appliedGains([at('a', '5'), at('b', '5')], [-30, -20], 'gain')).toMatchObject({ gains: [0, 0], gainRefused: null }); // prettier-ignore
  });

  it('cannot be evened out else: all are heard as they are, and it is said', () => {
    const found = appliedGains([at('a', '5'), take('b', { gainDb: 34 })], [-30, -20], 'gain');
    expect(found.gains).toEqual([0, 0]);
    expect(found.gainRefused).toMatch(/dial at 5/);
    expect(appliedGains([at('a', null), take('b')], [-30, -20], 'none').gainRefused).toBeNull();
  });
});

describe('what makes a take no fair companion', () => {
  it('is another step, protocol, version or rig, and each is named', () => {
    const versions = [DOCUMENT, protocolOf([step('bare', { distanceM: 0.3 })], 2)];
    expect(laneWarning(take('bare'), take('bare'), versions)).toBeNull();
    expect(laneWarning(take('alone'), take('bare'), versions)).toBe('Another step: alone.');
    expect(laneWarning(take('bare', { protocol: 'other' }), take('bare'), versions)).toBe('Another protocol: other.');
    expect(laneWarning(take('bare', { protocolVersion: 2 }), take('bare'), versions)).toMatch(/^Protocol version 2: /);
    expect(laneWarning(take('bare', { rig: null }), take('bare'), versions)).toMatch(/^Another rig: not noted/);
    const worked = take('bare', { processing: 'low-cut' });
    expect(laneWarning(worked, take('bare'), versions)).toBe('Processed: low-cut.');
    expect(laneWarning(take('bare'), worked, versions)).toBe('As it came, and the other processed: low-cut.');
    const mp3 = take('bare', { sound: { codec: 'mp3', bitRateKbps: 128 } });
    expect(laneWarning(mp3, take('bare'), versions)).toMatch(/^One of the two came through MP3, 128 kbit\/s/);
    expect(laneWarning(mp3, mp3, versions)).toBeNull();
    expect(
      laneWarning(take('bare', { sound: { codec: 'pcm-s24', bitRateKbps: null } }), take('bare'), versions),
    ).toBeNull();
  });
});

describe('with and without', () => {
  const bare = take('bare', { summary: figures(-20, -3, -50) });
  const shielded = take('shielded', { summary: figures(-14, -3, -58) });

  it('is told of the two halves of a pair, whichever comes first', () => {
    for (const takes of [
      [bare, shielded],
      [shielded, bare],
    ])
      expect(withWithout(takes)).toMatchObject({
        varies: 'shield',
        withTake: 'take shielded',
        withoutTake: 'take bare',
        addedGainDb: 6,
        noiseChangeDb: -8,
        noiseUncertaintyDb: null,
        // At matched speech: its noise lies 8 dB lower in the clip and 6 dB lower by the matching. A band without a level tells nothing.
        removed: [
          { centreHz: 100, speechDb: 0, noiseDb: 14 },
          { centreHz: 200, speechDb: null, noiseDb: null },
        ],
      });
  });

  it('takes gain that was turned in between into account', () => {
    expect(withWithout([bare, { ...shielded, gainDb: 46 }])?.addedGainDb).toBe(0);
  });

  it('says why where the gains cannot be held against each other', () => {
    const pair = withWithout([bare, { ...shielded, gainDb: null, dial: 'auto' }]);
    expect(pair).toMatchObject({ addedGainDb: null, noiseChangeDb: -8, gainRefused: expect.stringMatching(/automatic/) as string }); // prettier-ignore
  });

  it('holds a noise from outside at one gain: what a shield takes away is not matched away', () => {
    const noise = { play: { kind: 'noise' } };
    const document = protocolOf([step('open', noise), step('shut', { ...noise, pair: { step: 'open', varies: 'shield' } })]); // prettier-ignore
    const [open, shut] = [
      take('open', { document, summary: figures(-20, -3, -50) }),
      take('shut', { document, summary: figures(-30.5, -3, -58) }),
    ];
    expect(withWithout([open, shut])).toMatchObject({
      isOutsideNoise: true,
      addedGainDb: null,
      noiseChangeDb: null,
      removed: [
        { centreHz: 100, speechDb: null, noiseDb: 10.5 },
        { centreHz: 200, noiseDb: null },
      ],
    });
    expect(withWithout([open, { ...shut, gainDb: 46 }])?.removed[0].noiseDb).toBe(16.5);
    expect(withWithout([open, { ...shut, gainDb: null }])?.removed[0].noiseDb).toBeNull();
  });

  it('says how sure the change of the noise is where both are known, and no change where one was not measured', () => {
    const withNoise = (of: ComparedTake, value: number | null, uncertainty: number | null): ComparedTake => ({
      ...of,
      summary: { ...of.summary, measurements: { noiseReSpeechA: { value, uncertainty } as never } },
    });
    const pair = (u: number | null, v: number | null) => withWithout([withNoise(bare, -50.5, u), withNoise(shielded, -58, v)]); // prettier-ignore
    expect(pair(0.3, 0.4)).toMatchObject({ noiseChangeDb: -7.5, noiseUncertaintyDb: 0.5 });
    expect(pair(null, 0.4)?.noiseUncertaintyDb).toBeNull();
    expect(pair(0.3, null)?.noiseUncertaintyDb).toBeNull();
    const silent = take('shielded', { summary: figures(null, null) });
    expect(withWithout([bare, silent])).toMatchObject({ addedGainDb: null, noiseChangeDb: null });
    expect(withWithout([bare, silent])?.removed[0]).toEqual({ centreHz: 100, speechDb: null, noiseDb: null });
    expect(withWithout([take('bare', { summary: figures(null, null) }), shielded])?.noiseChangeDb).toBeNull();
  });

  it('is nothing where the takes are no pair', () => {
    expect(withWithout([bare, take('alone')])).toBeNull();
    expect(withWithout([bare, shielded, bare])).toBeNull();
    expect(withWithout([bare, { ...shielded, protocol: 'other' }])).toBeNull();
    // The partner is a step of its own, not any step.
    expect(withWithout([take('alone'), shielded])).toBeNull();
    expect(withWithout([take('gone'), take('alone')])).toBeNull();
  });

  it('tells the half "with" by its accessories, else by its name', () => {
    const named = protocolOf([step('booster-off', { pair: { step: 'booster', varies: 'booster' } }), step('booster')]);
    const pair = withWithout([take('booster-off', { document: named }), take('booster', { document: named })]);
    expect(pair).toMatchObject({ withTake: 'take booster', withoutTake: 'take booster-off' });
  });
});

describe('an exported comparison', () => {
  it('has names that every system takes', () => {
    expect(fileName('Oarlock Purser · A 2026-05-02')).toBe('Oarlock-Purser-A-2026-05-02');
    expect(fileName('Ö/../x')).toBe('O-x');
  });

  it('says what was applied, line by line', () => {
    const lane = {
      unit: 'Oarlock Purser · A',
      date: '2026-05-02',
      appliedDb: -2.5,
      loudnessLufs: -20.5,
      warning: null,
    };
    const table = { stepTitle: 'Passage', targetLufs: -23, lanes: [lane] };
    const text = levelsText('Spring', table as never, {
      takes: [],
      zero: '',
      match: 'loudness',
      loop: { fromS: 1, toS: 2.5 },
    });
    expect(text).toMatch(/^Spring\r\nPassage; levels: equal loudness over 1\.0–2\.5 s of the first/);
    expect(text).toMatch(/1\tOarlock Purser · A\t2026-05-02\t-2\.50 dB\t-20\.50 LUFS before/);
    const more = { ...table, lanes: [lane, { ...lane, appliedDb: 0, loudnessLufs: null, warning: 'processed' }] };
    const request = { takes: [], zero: '', loop: null };
    const of = (match: 'loudness' | 'gain' | 'none', targetLufs: number | null = -23): string =>
      levelsText('Spring', { ...more, targetLufs } as never, { ...request, match });
    expect(of('gain')).toContain('2\tOarlock Purser · A\t2026-05-02\t+0.00 dB\tno LUFS before\tprocessed\r\n');
    expect(of('gain')).toContain('levels: equal gain of the rig;');
    expect(of('none')).toContain('levels: as recorded;');
    expect(of('loudness')).toContain('equal loudness, ITU-R BS.1770-5, common level -23.00 LUFS');
    expect(of('loudness', null)).toContain('common level ? LUFS');
  });
});
