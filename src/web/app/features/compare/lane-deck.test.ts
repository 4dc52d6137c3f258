import { describe, expect, it } from 'vitest';
import { SAME_TIME } from '#core/audio/phrase-alignment';
import type { CompareLane } from '#contracts/compare';
import type { Loop, PlayedLane } from '../../audio/lane-player';
import { LaneDeck } from './lane-deck';

/** A player that notes what it is told, as long as its shortest clip. */
class Noted {
  lanes: readonly PlayedLane[] = [];
  loop: Loop | null = null;
  isPlaying = false;
  at = 0;
  log: string[] = [];
  get lengthS(): number {
    return Math.min(...this.lanes.map((l) => l.buffer.duration));
  }
  setLanes = (lanes: readonly PlayedLane[]) => (this.lanes = lanes);
  setLoop = (loop: Loop | null) => (this.loop = loop);
  setVolume = (db: number) => this.log.push(`volume ${db}`);
  switchTo = (lane: number) => this.log.push(`lane ${lane}`);
  play = () => ((this.isPlaying = true), this.log.push('play'));
  pause = () => ((this.isPlaying = false), this.log.push('pause'));
  seek = (atS: number) => this.log.push(`seek ${atS}`);
  positionS = () => this.at;
  close = () => this.log.push('close');
}

const lane = (takeId: string, sha256: string, appliedDb = 0) => ({ takeId, sha256, appliedDb }) as CompareLane;
const buffer = (duration: number) => ({ duration }) as AudioBuffer;

function deckWith(clips: Readonly<Record<string, number>>, canSound = true) {
  const player = new Noted();
  const [fetched, failed]: [string[], unknown[]] = [[], []];
  const deck = new LaneDeck(
    {
      clip: (url) => {
        fetched.push(url);
        const length = clips[url.split('/')[3]];
        return length === undefined ? Promise.reject(new Error(`no ${url}`)) : Promise.resolve(buffer(length));
      },
      ready: () => Promise.resolve(canSound),
      forget: () => player.log.push('forget'),
      player: () => player,
    },
    (error) => failed.push(error),
  );
  return { deck, player, fetched, failed };
}
const fetchedAll = () => new Promise((resolve) => setTimeout(resolve));

describe('lanes that are heard', () => {
  it('are ready once every clip is there; each is fetched once', async () => {
    const { deck, fetched } = deckWith({ a: 4, b: 6 });
    expect(deck.isReady()).toBe(false);
    deck.show([lane('1', 'a'), lane('2', 'b')]);
    expect(deck.isReady()).toBe(false);
    await fetchedAll();
    expect(deck.isReady()).toBe(true);
    deck.show([lane('1', 'a', -3), lane('2', 'b'), lane('3', 'a')]);
    expect(fetched).toEqual(['/api/clips/a/audio', '/api/clips/b/audio']);
    expect(deck.isReady()).toBe(true);
  });

  it('say which clip cannot be heard', async () => {
    const { deck, failed } = deckWith({ a: 4 });
    deck.show([lane('1', 'a'), lane('2', 'gone')]);
    await fetchedAll();
    expect([deck.isReady(), String(failed[0])]).toEqual([false, 'Error: no /api/clips/gone/audio']);
  });

  it('are played at their own gain and alignment, in their own order', async () => {
    const { deck, player } = deckWith({ a: 4, b: 6 });
    deck.tell();
    expect([deck.isPlaying(), deck.atS()]).toEqual([false, 0]);
    deck.show([lane('1', 'a', -6.0206), lane('2', 'b', 0)]);
    // Not before every clip is there: a lane too few would play another clip under its number.
    deck.arm(new Map(), { fromS: 1, toS: 2 });
    expect([player.lanes, player.loop]).toEqual([[], null]);
    await fetchedAll();
    const map = [{ at: 0, to: 0.3 }] as unknown as typeof SAME_TIME;
    deck.arm(new Map([['2', { map }]]), { fromS: 1, toS: 2 });
    expect(player.lanes.map((l) => [l.buffer.duration, Number(l.gain.toFixed(4)), l.map])).toEqual([
      [4, 0.5, SAME_TIME],
      [6, 1, map],
    ]);
    expect([player.loop, deck.lengthS()]).toEqual([{ fromS: 1, toS: 2 }, 4]);
    deck.arm(new Map(), null);
    expect(player.loop).toBeNull();
  });

  it('play the chosen one, and pause', async () => {
    const { deck, player } = deckWith({ a: 4, b: 6 });
    deck.show([lane('1', 'a'), lane('2', 'b')]);
    await deck.toggle();
    expect(player.log).toEqual([]);
    await fetchedAll();
    deck.arm(new Map(), null);
    deck.choose(1);
    await deck.toggle();
    player.at = 1.5;
    deck.tell();
    expect([deck.isPlaying(), deck.atS(), player.log]).toEqual([true, 1.5, ['lane 1', 'lane 1', 'play']]);
    await deck.toggle();
    player.at = 2;
    deck.tell();
    expect([deck.isPlaying(), deck.atS()]).toEqual([false, 1.5]);
  });

  it('stay silent until the reminder of hearing is read', async () => {
    const { deck, player } = deckWith({ a: 4 }, false);
    deck.show([lane('1', 'a')]);
    await fetchedAll();
    deck.arm(new Map(), null);
    await deck.toggle();
    expect([deck.isPlaying(), player.log]).toEqual([false, []]);
  });

  it('are sought within what all of them have', async () => {
    const { deck, player } = deckWith({ a: 4 });
    deck.show([lane('1', 'a')]);
    await fetchedAll();
    deck.arm(new Map(), null);
    deck.seek(9);
    deck.seek(-2);
    expect([player.log, deck.atS()]).toEqual([['seek 4', 'seek 0'], 0]);
  });

  it('keep the chosen lane where others go, as far as there is one', () => {
    const { deck } = deckWith({});
    deck.show([lane('1', 'a'), lane('2', 'b'), lane('3', 'c')]);
    deck.choose(2);
    deck.show([lane('1', 'a'), lane('2', 'b')]);
    expect(deck.active()).toBe(1);
    deck.show([]);
    expect(deck.active()).toBe(0);
  });

  it('can be turned, sought and left before there is anything to hear', () => {
    const { deck, player } = deckWith({});
    deck.setVolume(-20);
    deck.choose(0);
    deck.seek(3);
    deck.leave();
    expect([deck.atS(), player.log]).toEqual([0, ['forget']]);
  });

  it('leave nothing behind', async () => {
    const { deck, player } = deckWith({ a: 4 });
    deck.show([lane('1', 'a')]);
    await fetchedAll();
    deck.arm(new Map(), null);
    deck.setVolume(-20);
    deck.leave();
    expect(player.log).toEqual(['volume -20', 'close', 'forget']);
  });
});
