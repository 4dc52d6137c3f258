import { compareClaim } from '#core/gear/claim-comparison';
import { ALGORITHM_VERSION, isQuantity, quantity, RUN_FIGURES_VERSION } from '#core/measure/registry';
import { newestFigure, runsOfTheUnit } from '#core/rules/newest-figure';
import { pricePoints } from '#core/rules/price-rule';
import type { Criterion } from '#core/rules/rubric';
import { gainWords, takeGain } from '#core/rules/take-gain';
import type { Edition, FrozenDeck, FrozenFigure, FrozenRow } from '#contracts/edition';
import type { House, ReviewDocument } from '#contracts/review';
import type { Run, SpecimenSheet, Take } from '#contracts/specimen';
import { unitName } from '#contracts/unit-name';
import { countingRun } from '../catalogue/counting-run';
import { characterWords } from '../character/character-words';
import { publishedWords } from '../character/published-words';
import { plainPrice } from '../catalogue/unit-facts';
import { takeWords } from '../compare/take-words';
import { editionChanges, type EditionFacts } from './edition-changes';
import { publishedText } from './published-text';
import { figureWords, type ReviewFacts } from './review-facts';

/** So many rows of a ranking are published in full; of a longer one its head and what stands around the unit. */
const MOST_ROWS = 60;
const HEAD_ROWS = 20;
const ROWS_AROUND = 10;
/** A film's player shows no chapters where one is shorter (common practice, no source). */
const SHORTEST_CHAPTER_S = 10;

/** What an edition is made of, beside the facts of the unit. */
export interface Freezing {
  readonly review: string;
  readonly document: ReviewDocument;
  readonly house: House;
  readonly facts: ReviewFacts;
  readonly decks: readonly FrozenDeck[];
  readonly day: string;
  readonly software: string;
  /** The edition before; null for the first. */
  readonly before: Edition | null;
}

/** An edition: everything that is published, as it stands on its day. */
export function freeze({ review, document, house, facts, decks, day, software, before }: Freezing): Edition {
  const { sheet, kind } = facts;
  const { id, maker, model, label, category } = sheet.row;
  const counting = countingRun(sheet.runs);
  const edition: Edition = {
    format: 'sediment-edition/1',
    review,
    number: (before?.number ?? 0) + 1,
    publishedOn: day,
    desk: house.desk,
    clipLicence: house.clipLicence,
    unit: { id, maker, model, label, category, kind: kind.name },
    text: publishedText(document),
    ...frozenFacts(facts, software),
    claims: frozenClaims(facts),
    prices: sheet.prices.map(plainPrice),
    frontier: frozenFrontier(facts),
    response: frozenResponse(counting?.run ?? null),
    grid: counting?.run.curves.conditions ?? null,
    decks: [...decks],
    chapters: chapters(decks),
    settings: takeSettings(counting?.run ?? null),
    words: publishedWords(characterWords(facts, house)),
    photographs: sheet.photographs.map(({ sha256, format, caption, widthPx, heightPx }) => ({ sha256, format, caption, widthPx, heightPx })), // prettier-ignore
    runs: runsOfTheUnit(sheet.runs).map(({ date, protocol, protocolVersion, rig }) => ({ date, protocol, version: protocolVersion, rig })), // prettier-ignore
    changes: [],
  };
  return before ? { ...edition, changes: editionChanges(before, edition) } : edition;
}

/** What an edition says that facts can change, as it is now. */
export const frozenFacts = (facts: ReviewFacts, software: string): EditionFacts => ({
  figures: frozenFigures(facts.sheet),
  price: countedPriceOf(facts),
  ranking: frozenRanking(facts),
  made: { software, algorithm: ALGORITHM_VERSION, runFigures: RUN_FIGURES_VERSION },
});

/** Figures that count: of each the newest that has a value. */
export function frozenFigures(sheet: Pick<SpecimenSheet, 'runs'>): FrozenFigure[] {
  const own = runsOfTheUnit(sheet.runs);
  const used = own.length > 0 ? own : sheet.runs;
  const readings = new Map<string, (Run['measurements'][number] & { readonly day: string; readonly protocol: string })[]>(); // prettier-ignore
  for (const run of used)
    for (const m of run.measurements)
      readings.set(m.quantity, [...(readings.get(m.quantity) ?? []), { ...m, day: run.date, protocol: `${run.protocol} ${run.protocolVersion}` }]); // prettier-ignore
  return [...readings.values()].flatMap((all): FrozenFigure[] => {
    const counting = newestFigure(all)?.reading;
    if (!counting || !isQuantity(counting.quantity)) return [];
    const { quantity: id, value, uncertainty, anotherReading, bound, condition, notMeasured, day, protocol } = counting;
    const { name, unit, group } = quantity(id);
    const text = figureWords(id, { value, uncertainty, anotherReading, bound });
    return [{ quantity: id, name, unit, group, value, uncertainty, anotherReading, bound, condition, notMeasured, day, protocol, text }]; // prettier-ignore
  });
}

function frozenClaims({ sheet, own }: ReviewFacts): Edition['claims'] {
  return sheet.claims.flatMap((claim) => {
    if (!isQuantity(claim.quantity)) return [];
    const id = claim.quantity;
    const fact = own.figures[id];
    const compared = compareClaim(claim, fact?.value ?? null);
    return [
      {
        name: quantity(id).name,
        claimed: [String(claim.value).replace('-', '−'), claim.unit, claim.condition].filter((p) => p !== '').join(' '),
        measured: figureWords(id, fact ?? { value: null }),
        remark: compared.comparable ? '' : `not comparable: ${compared.reason}`,
      },
    ];
  });
}

function countedPriceOf({ own, rubric, sheet }: ReviewFacts): Edition['price'] {
  const rule = rubric?.criteria.find((c) => c.kind === 'price');
  const verdict = rule ? pricePoints(own, rule) : null;
  const counted = verdict && verdict.points !== null ? verdict.price : null;
  const isCounted = (p: (typeof sheet.prices)[number]): boolean =>
    p.kind === counted?.kind && p.date === counted.date && (p.currency !== counted.currency || p.amount === counted.amount); // prettier-ignore
  const found = sheet.prices.find(isCounted) ?? sheet.prices.at(0);
  return found ? plainPrice(found) : null;
}

/** Where a unit stands, and what its points are made of; null where it is not ranked. */
export function frozenRanking({ rubric, own, standing, names }: Omit<ReviewFacts, 'sheet'>): Edition['ranking'] {
  const place = standing.ranked.find((u) => u.id === own.id);
  if (!rubric || !place) return null;
  const sum = rubric.criteria.reduce((s, c) => s + Math.max(0, rubric.weights[c.id] ?? 0), 0);
  const rows = standing.ranked.map((u): FrozenRow => ({
    unit: u.id,
    name: unitName(names[u.id]),
    place: u.place,
    stratum: u.stratum,
    composite: u.composite,
    composite90: [...u.composite90],
    rank90: [...u.rank90],
  }));
  return {
    own: own.id,
    rulesVersion: rubric.version,
    stratumProbability: rubric.stratumProbability,
    criteria: rubric.criteria.map((c) => ({
      id: c.id,
      name: c.name,
      meaning: c.meaning,
      share: sum === 0 ? 0 : Math.max(0, rubric.weights[c.id] ?? 0) / sum,
      points: place.points[c.id].points,
      why: whyPoints(c, own, place.points[c.id].why),
    })),
    of: rows.length,
    rows: shownRows(rows, place.place),
  };
}

/** Why a criterion gives its points, with the figure where it goes by one. */
function whyPoints(criterion: Criterion, own: ReviewFacts['own'], why: string): string {
  const fact = criterion.kind === 'measured' ? own.figures[criterion.quantity] : undefined;
  const isMeasured = criterion.kind === 'measured' && fact && fact.value !== null;
  return isMeasured ? `${figureWords(criterion.quantity, fact)}, ${why}` : why;
}

/** All rows, or of a long ranking its head and what stands around a place. */
export const shownRows = (rows: readonly FrozenRow[], place: number): FrozenRow[] =>
  rows.length <= MOST_ROWS
    ? [...rows]
    : rows.filter((r) => r.place <= HEAD_ROWS || Math.abs(r.place - place) <= ROWS_AROUND);

/** The price frontier, of many units what lies on it and the unit itself. */
export function frozenFrontier({
  rubric,
  standing,
  names,
  own,
}: Pick<ReviewFacts, 'rubric' | 'standing' | 'names'> & { own: { id: string } | null }): Edition['frontier'] {
  const rule = rubric?.criteria.find((c) => c.kind === 'price');
  if (!rule || standing.frontier.length === 0) return null;
  return {
    currency: rule.currency,
    units: standing.frontier
      .filter((u) => standing.frontier.length <= MOST_ROWS || u.isOnFrontier || u.id === own?.id)
      .map(({ id, price, composite, isOnFrontier }) => ({ unit: id, name: unitName(names[id]), price, composite, isOnFrontier })), // prettier-ignore
  };
}

const frozenResponse = (run: Run | null): Edition['response'] =>
  run?.curves.response
    ? {
        points: run.curves.response.points.map(({ hz, db }) => ({ hz, db })),
        lowestValidHz: run.curves.response.lowestValidHz,
      }
    : null;

/** Where each clip begins when they are played one after the other; what is too short goes with the one before it. */
export function chapters(decks: readonly FrozenDeck[]): Edition['chapters'] {
  const all: { atS: number; title: string }[] = [];
  let atS = 0;
  for (const deck of decks)
    for (const lane of deck.lanes) {
      const last = all.at(-1);
      const title = `${deck.title}: ${lane.name}${lane.words === '' ? '' : `, ${lane.words}`}`;
      if (last && atS - last.atS < SHORTEST_CHAPTER_S) last.title = `${last.title}; ${title}`;
      else all.push({ atS, title });
      atS += lane.durationS;
    }
  return all;
}

function takeSettings(run: Run | null): Edition['settings'] {
  return (run?.takes ?? []).map((take) => ({ step: take.stepTitle, text: settingsText(take) }));
}

/** What a take was made with, in words; what was not noted is not there. */
export function settingsText(
  take: Pick<Take, 'gainDb' | 'distanceM' | 'angleDeg' | 'windSpeedMs' | 'settings' | 'clip'>,
): string {
  const dial = take.settings['dial'];
  return [
    gainWords(takeGain(take.gainDb, typeof dial === 'string' ? dial : null)),
    take.distanceM === null ? '' : `${Math.round(take.distanceM * 100)} cm`,
    take.angleDeg === null ? '' : `${take.angleDeg}°`,
    take.windSpeedMs === null ? '' : `wind of ${take.windSpeedMs} m/s`,
    `${take.clip.format.sampleRateHz / 1000} kHz`,
    takeWords(take.settings, take.clip.origin),
  ]
    .filter((part) => part !== '')
    .join(', ');
}
