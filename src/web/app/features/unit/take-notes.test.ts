import { describe, expect, it } from 'vitest';
import type { Take } from '#contracts/specimen';
import { sharedNotes, takeNotes, takeSetup } from './take-notes';

describe('notes on a take', () => {
  const summary = (change: Record<string, unknown> = {}) => ({
    format: { container: 'wav', encoding: 'pcm24', sampleRateHz: 48_000, channels: 1, durationS: 3 },
    level: { peakDbfs: -10, rmsDbfs: -25, crestDb: 18, dcOffset: 0, clippedRuns: 0 },
    loudness: { integratedLufs: -25, truePeakDbtp: -9.5 },
    noise: {
      speech: [{ startS: 0, endS: 1 }],
      silence: [],
      silenceRmsDbfs: { z: -65, a: -70 },
      reSpeechDb: { z: null, a: null },
      thirdOctave: [],
    },
    thirdOctave: [],
    hum: null,
    interference: null,
    dropOuts: { count: 0, listed: [] },
    ...change,
  });
  const take = (step: string, change: Record<string, unknown> = {}, salvaged: unknown = null): Take =>
    ({ step, clip: { salvaged }, overruled: [], settings: {}, summary: summary(change) }) as unknown as Take;
  const texts = (t: Take): string =>
    takeNotes(t)
      .map((n) => n.text)
      .join(' ');

  it('repeats what was overruled, with its reason', () => {
    const overruled = [{ check: 'clipped', what: 'Clipped twice.', reason: 'the limiter is tested' }];
    expect(texts({ ...take('speech'), overruled })).toContain('Clipped twice. Because: the limiter is tested');
  });

  it('says nothing of a good take', () => {
    expect(takeNotes(take('speech'))).toEqual([]);
  });

  it('names clipping, hot and quiet takes, sound in the silence, silence in the speech, and parts', () => {
    const level = summary().level;
    expect(texts(take('speech', { level: { ...level, clippedRuns: 3 } }))).toContain('Clipped in 3 places');
    expect(texts(take('speech', { loudness: { integratedLufs: -12, truePeakDbtp: -0.4 } }))).toContain('Loud');
    expect(texts(take('speech', { level: { ...level, peakDbfs: -40 } }))).toContain('Very quiet');
    expect(texts(take('silence'))).toContain('Something is heard');
    expect(texts(take('rear', { noise: { ...summary().noise, speech: [] } }))).toContain('No speech');
    expect(texts(take('speech', { level: { ...level, peakDbfs: null } }))).toContain('Digital silence');
    expect(texts(take('speech', {}, { claimedS: 12 }))).toContain('of 12.0 s');
    const hole = { kind: 'gap', startS: 1.25, lengthS: 0.02 };
    expect(texts(take('speech', { dropOuts: { count: 3, listed: [hole] } }))).toContain(
      '3 drop-outs, the first a gap at 1.25 s',
    );
    expect(texts(take('silence', { hum: { mainsHz: 50, totalDbfs: -71.2, lines: [] } }))).toContain(
      'Hum of 50 Hz mains at −71.2 dBFS',
    );
    const family = { spacingHz: 1000, totalDbfs: -80, linesHz: [1000] };
    expect(texts(take('silence', { interference: { lines: [], busWhine: family, radioBursts: family } }))).toMatch(
      /Bus whine.*Radio bursts of a phone/,
    );
    // A sweep has no speech, and needs none.
    expect(takeNotes(take('sweep-0', { noise: { ...summary().noise, speech: [] } }), 'sweep')).toEqual([]);
  });

  it('that most takes of a run share are said once, whatever their levels', () => {
    const humming = (dbfs: number) => take('silence', { hum: { mainsHz: 50, totalDbfs: dbfs, lines: [] } });
    const clipped = take('speech', { level: { ...summary().level, clippedRuns: 1 } });
    const hum = 'Hum of 50 Hz mains: look for a ground loop or a supply nearby.';
    expect(sharedNotes([humming(-71), humming(-72), humming(-73), clipped]).find((n) => n.about === hum)?.takes).toBe(
      3,
    );
    // Two are no run, and three of seven no rule.
    expect(sharedNotes([humming(-71), humming(-72)])).toEqual([]);
    expect(sharedNotes([...[-71, -72, -73].map(humming), ...Array.from({ length: 4 }, () => clipped)]).map((n) => n.about)).toEqual(['Clipped in 1 place: turn the gain down and take it again.']); // prettier-ignore
  });

  it('say how it was made in one line', () => {
    const format = { container: 'wav', encoding: 'pcm24', sampleRateHz: 44_100, channels: 2, durationS: 3 } as const;
    const levels = { levelDbSpl: null, levelDbu: null, windSpeedMs: null };
    const made = { gainDb: 38, distanceM: 0.15, angleDeg: 180, ...levels, clip: { format }, settings: {} } as unknown as Take; // prettier-ignore
    expect(takeSetup(made)).toBe('38 dB gain, 15 cm, 180°, 44.1 kHz pcm24, 2 channels');
    expect(takeSetup({ ...made, gainDb: 37.5, distanceM: null, angleDeg: null })).toBe(
      '37.5 dB gain, 44.1 kHz pcm24, 2 channels',
    );
    expect(takeSetup({ ...made, distanceM: 0.025 })).toContain(', 2.5 cm,');
    expect(takeSetup({ ...made, gainDb: null, settings: { dial: '50 %' }, windSpeedMs: 6.7 })).toBe('dial at 50 %, 15 cm, 180°, wind of 6.7 m/s, 44.1 kHz pcm24, 2 channels'); // prettier-ignore
    expect(takeSetup({ ...made, settings: { pad: '−10 dB', phantom: true, lowCut: 'off' } })).toMatch(
      /pad −10 dB, phantom power on, low-cut off$/,
    );
  });
});
