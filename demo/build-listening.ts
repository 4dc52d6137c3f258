import {
  DEMO_COMPARE,
  DEMO_EARS,
  DEMO_FAIR,
  DEMO_LISTENERS,
  DEMO_OPEN_TEST,
  DEMO_TESTS,
  DEMO_WORDS,
  type DemoTest,
} from './listening';
import { DEMO_PACK } from './blind-pack';
import { answerDemoPack } from './build-blind-pack';
import { holdDemoPanel } from './build-live-panel';
import { DEMO_UNITS } from './scenario';
import { seededBits, uniform, type RandomBits } from '#core/stats/random';
import {
  askedTrialSchema,
  newTestSchema,
  type AskedTrialDocument,
  type SendAnswer,
  type SittingState,
  type TestPage,
  type TrialDocument,
  type Words,
} from '#contracts/listening';
import type { CompareCandidate } from '#contracts/compare';
import { unitName } from '#contracts/unit-name';
import type { Application } from '#server/wiring';
import { codeOf } from '#domain/listening/heard-from-answer';

/** Step that the demo listens to. */
const STEP = 'speech';

/**
 * Three years of listening tests, set up, prepared and answered by the same ways as anybody's. What the listeners
 * answer follows the worths of the scenario, with as much chance as ears have.
 */
export async function buildDemoListening(application: Application): Promise<void> {
  const { tests, answersImport, compare, compareSets, jobs } = application;
  if ((await tests.list()).length > 0) return;
  const takes = await compare.candidates('microphone', STEP);
  /** Keys of listeners who come back, as their browsers would keep them. */
  const keys = new Map<string, string>();
  const job = jobs.open('Listening through the demo', DEMO_TESTS.length + 1, null);
  for (const [i, plan] of DEMO_TESTS.entries()) {
    const page = await setUp(application, plan, takes);
    if (page) {
      for (const listener of plan.listeners) await listen(application, page, plan, listener, keys);
      await tests.reveal(page.row.id);
    }
    job.progress(i + 1);
  }
  await setUp(application, DEMO_OPEN_TEST, takes);
  const pack = await setUp(application, { ...DEMO_PACK, listeners: [] }, takes);
  if (pack) await answerDemoPack(application, pack, (id, listener) => feltWorth(id, pack, listener));
  await holdDemoPanel(application, (page, items, listener) => ranked(items, page, listener, seededBits(`panel/${listener}`))); // prettier-ignore
  const csv = fairCsv(takes);
  if (csv) await answersImport.importCsv(csv, 'preference', 'microphone');
  const compared = DEMO_COMPARE.units.flatMap((u) => newest(takes, u, '')?.takeId ?? []);
  if (compared.length > 1)
    await compareSets.keep(DEMO_COMPARE.name, { takes: compared, zero: compared[0], match: 'loudness', loop: null });
  job.finish();
}

/** The newest take, as of a day, of a unit that is named by model, or by model and label. */
function newest(takes: readonly CompareCandidate[], unit: string, day: string): CompareCandidate | undefined {
  const [model, label] = unit.split('/');
  const names = DEMO_UNITS.filter((u) => u.model === model && (label === undefined || u.label === label)).map(unitName);
  return takes.find((t) => names.includes(t.unit) && (day === '' || t.date <= day));
}

async function setUp(
  { tests, listeningClips }: Application,
  plan: DemoTest,
  takes: readonly CompareCandidate[],
): Promise<TestPage | null> {
  const ids = plan.units.flatMap((u) => newest(takes, u, plan.day)?.takeId ?? []);
  const yardstick = plan.yardstick === undefined ? null : (newest(takes, plan.yardstick, plan.day)?.takeId ?? null);
  const parsed = newTestSchema.safeParse({ ...plan.test, takes: ids, yardstick });
  // A demo of fewer runs (tests) has fewer tests.
  if (!parsed.success) return null;
  const { row } = await tests.create(parsed.data, plan.day || undefined, `demo ${plan.test.name}`);
  await listeningClips.settled();
  return tests.page(row.id);
}

/** Model of an item, from its name. */
const modelOf = (name: string): string => DEMO_UNITS.find((u) => unitName(u) === name)?.model ?? '';

/** What ears make of a unit: log odds against a middling one. */
function worthOf(model: string, listener: string): number {
  const points = DEMO_UNITS.find((u) => u.model === model)?.sound?.[0] ?? 3;
  return (DEMO_EARS[model] ?? 1.3 * (points - 3.3)) + (DEMO_LISTENERS[listener]?.likes[model] ?? 0);
}

async function listen(
  application: Application,
  page: TestPage,
  plan: DemoTest,
  listener: string,
  keys: Map<string, string>,
): Promise<void> {
  const { sittings, tests } = application;
  const bits = seededBits(`${plan.test.name}/${listener}`);
  if (plan.test.design === 'performer') {
    const order = ranked(
      page.items.map((i) => i.id),
      page,
      listener,
      bits,
    );
    const words = Object.fromEntries(order.map((id) => [id, { words: wordsOf(page, id, bits), free: '' }]));
    await application.performers.answer(page.row.id, { listener, order, words });
    return;
  }
  const { sitting, listener: own } = await sittings.join(
    page.invitation,
    { name: listener, listener: keys.get(listener) ?? null },
    `demo ${plan.test.name}/${listener}`,
  );
  keys.set(listener, own);
  await sittings.about(sitting, { voice: 'any', hearing: 'normal', device: 'headphones' });
  await sittings.headphones(sitting, { left: 'left', phase: 'in' });
  for (let state = await sittings.state(sitting); state.trial;) {
    const trial = (await tests.answers(page.row.id)).find((a) => a.sitting.listener === listener)?.trials[state.trial.ordinal].trial; // prettier-ignore
    if (!trial) return;
    await sittings.heardElsewhere(sitting);
    state = await sittings.answer(sitting, {
      trial: state.trial.ordinal,
      answer: answerTo(state, askedTrialSchema.parse(trial), page, listener, bits),
      words: state.trial.askWords ? wordsFor(trial, page, bits) : {},
      seconds: 25 + 20 * uniform(bits),
    });
  }
}

/** Items by worth with a listener's chance: the largest of worth plus Gumbel noise, as Plackett & Luce have it. */
function ranked(ids: readonly string[], page: TestPage, listener: string, bits: RandomBits): string[] {
  return ids
    .map((id) => ({ id, felt: feltWorth(id, page, listener) + gumbel(bits, listener) }))
    .sort((a, b) => b.felt - a.felt)
    .map(({ id }) => id);
}

function feltWorth(id: string, page: TestPage, listener: string): number {
  const item = page.items.find((i) => i.id === id);
  if (item?.role === 'anchor-low' || item?.role === 'known-worse') return -5;
  if (item?.role === 'anchor-mid') return -3;
  return worthOf(modelOf(item?.name ?? ''), listener);
}

const gumbel = (bits: RandomBits, listener: string): number =>
  -(DEMO_LISTENERS[listener]?.chance ?? 1) * Math.log(-Math.log(uniform(bits) + 1e-12));

function answerTo(
  { trial: asked }: SittingState,
  trial: AskedTrialDocument,
  page: TestPage,
  listener: string,
  bits: RandomBits,
): SendAnswer['answer'] {
  const codes = trial.items.map((_, i) => codeOf(i));
  switch (trial.kind) {
    case 'familiarise':
      return { kind: 'familiarise' };
    case 'order': {
      const order = ranked(trial.items, page, listener, bits);
      return { kind: 'order', codes: order.map((id) => codes[trial.items.indexOf(id)]) };
    }
    case 'pair': {
      const [a, b] = trial.items.map((id) => feltWorth(id, page, listener) + gumbel(bits, listener));
      const isTie = asked?.tiesAllowed && Math.abs(a - b) < (trial.control === 'same' ? 2 : 0.3);
      return { kind: 'pair', preferred: isTie ? null : a > b ? codes[0] : codes[1] };
    }
    case 'abx': {
      // The two batches differ by 2 dB around 5.5 kHz: practised ears hear it four times in five.
      const share = listener.startsWith('Ines') ? 0.85 : 0.55;
      const x = codes[trial.items.indexOf(trial.x)];
      return { kind: 'abx', x: uniform(bits) < share ? x : (codes.find((c) => c !== x) ?? x) };
    }
    case 'names': {
      const ids = trial.items.map((id) => page.items.find((i) => i.id === id)?.specimenId ?? '');
      // Practised ears know them; a guest takes two for each other.
      if (listener.startsWith('Wietske')) [ids[0], ids[1]] = [ids[1], ids[0]];
      return { kind: 'names', names: Object.fromEntries(codes.map((c, i) => [c, ids[i]])) };
    }
    case 'ratings':
      return {
        kind: 'ratings',
        ratings: Object.fromEntries(
          trial.items.map((id, i) => [codes[i], rating(id, trial.reference, page, listener, bits)]),
        ),
      };
  }
}

function rating(id: string, reference: string, page: TestPage, listener: string, bits: RandomBits): number {
  const { chance } = DEMO_LISTENERS[listener] ?? { chance: 1 };
  if (id === reference) return Math.round(100 - 14 * (chance - 0.7) * uniform(bits));
  const felt = feltWorth(id, page, listener) - feltWorth(reference, page, listener);
  const clear = 100 / (1 + Math.exp(-(felt + 2.6)));
  return Math.round(Math.min(98, Math.max(2, clear + 8 * chance * (uniform(bits) - 0.5))));
}

function wordsFor(trial: TrialDocument, page: TestPage, bits: RandomBits): Words {
  return Object.fromEntries(
    trial.items.flatMap((id, i) => {
      const words = wordsOf(page, id, bits);
      return words.length > 0 ? [[codeOf(i), { words, free: '' }]] : [];
    }),
  );
}

function wordsOf(page: TestPage, id: string, bits: RandomBits): Words[string]['words'] {
  const model = modelOf(page.items.find((i) => i.id === id)?.name ?? '');
  return (DEMO_WORDS[model] ?? []).filter(() => uniform(bits) < 0.6);
}

function fairCsv(takes: readonly CompareCandidate[]): string | null {
  const quoted = (text: string): string => `"${text.replaceAll('"', '""')}"`;
  const lines = DEMO_FAIR.pairs.flatMap(([better, worse, wins, losses]) => {
    const [a, b] = [newest(takes, better, DEMO_FAIR.day), newest(takes, worse, DEMO_FAIR.day)];
    if (!a || !b) return [];
    const line = (winner: string, loser: string, count: number): string =>
      [quoted(winner), quoted(loser), 0, count, quoted(DEMO_FAIR.listener), DEMO_FAIR.day].join(',');
    return [line(a.unit, b.unit, wins), line(b.unit, a.unit, losses)];
  });
  return lines.length === 0 ? null : `winner,loser,tie,count,listener,date\n${lines.join('\n')}\n`;
}
