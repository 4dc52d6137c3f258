import type { Proposal, ReviewDocument } from '#contracts/review';
import type { Application } from '#server/wiring';

// What the desk has written and published. All invented; lines from facts are taken as the rules propose them.

interface DemoReview {
  readonly model: string;
  readonly headline: string;
  readonly summary: string;
  readonly obtained: ReviewDocument['obtained'];
  readonly afterwards: ReviewDocument['afterwards'];
  readonly conditions: string;
  readonly quotations?: ReviewDocument['quotations'];
  /** Published, or left as a draft. */
  readonly isPublished: boolean;
  /** Noted after it was published: what its page says has changed since. */
  readonly later?: { readonly amount: number; readonly date: string };
}

const LOFT = 'The net loft, curtains drawn, tide out. Words read at 15 cm; gain by the protocol.';

const REVIEWS: readonly DemoReview[] = [
  {
    model: 'Lantern',
    headline: 'Plain, quiet enough, and beaten for less',
    summary:
      'The Lantern is a plain microphone that stays out of the way.\n\nIts noise is low enough for a ferry announcement in a quiet cabin. What comes from behind is another matter: more of the loft gets in than its rivals let in.',
    obtained: 'bought',
    afterwards: 'stays here',
    conditions: LOFT,
    quotations: [
      {
        words: 'It sits in front of the mix without shouting.',
        saidBy: 'Wietske, ferry announcer',
        saidOn: '2023-03-18',
        consent: 'given',
      },
      { words: 'Mine sounds better, I think.', saidBy: 'Bram, the desk', saidOn: '2024-02-10', consent: 'not asked' },
    ],
    isPublished: true,
    later: { amount: 159, date: '2025-11-20' },
  },
  {
    model: 'Fourfold',
    headline: 'Four inputs, one crowded dial',
    summary:
      'Four honest inputs at a fair price, and a dial that keeps its last 20 dB for the end of its travel.\n\n- Leave it alone for loud voices.\n- For a quiet dynamic microphone, look at the alternatives below.',
    obtained: 'lent',
    afterwards: 'went back',
    conditions: 'Measured with a loop cable and a 150 Ω plug; the latency with the driver of the day.',
    isPublished: true,
  },
  {
    model: 'Lift',
    headline: '',
    summary: 'Draft: gain first, then whether it filters.',
    obtained: 'lent',
    afterwards: 'not said',
    conditions: '',
    isPublished: false,
  },
];

/** Takes a proposal into a document, as the page does on a press of a button. */
function taken(document: ReviewDocument, proposals: readonly Proposal[]): ReviewDocument {
  const line = ({ text, restsOn }: Proposal) => ({ text, restsOn });
  const of = (part: Proposal['part']) => proposals.filter((p) => p.part === part);
  const price = of('turningPrice').at(0);
  return {
    ...document,
    pros: of('pros').map(line),
    cons: of('cons').map(line),
    notTested: of('notTested').map(line),
    uses: of('uses').flatMap((p) => (p.use === null || p.suits === null ? [] : [{ ...line(p), use: p.use, suits: p.suits }])), // prettier-ignore
    alternatives: of('alternatives').flatMap((p) => (p.unit ? [{ ...line(p), unit: p.unit.id, name: p.unit.name }] : [])), // prettier-ignore
    turningPrice: price?.price ? { ...line(price), ...price.price } : null,
  };
}

/** Reviews of the demo, once everything is measured; an archive that has reviews keeps them as they are. */
export async function buildDemoReviews({ reviews, house, catalogue, scoring, jobs }: Application): Promise<void> {
  if ((await reviews.list()).length > 0) return;
  const stands = await house.current();
  if (stands.version === 0)
    await house.save({ ...stands, desk: 'Tidewrack Audio Desk', clipLicence: 'Free to share with our name' });
  const job = jobs.open('Writing the reviews of the demo', REVIEWS.length, null);
  for (const [i, { model, isPublished, later, ...words }] of REVIEWS.entries()) {
    const unit = (await catalogue.specimens()).find((u) => u.model === model && u.label === 'A');
    if (!unit) continue;
    const { id } = await reviews.open(unit.id);
    const opened = await reviews.get(id);
    const document = { ...taken(opened.document, isPublished ? opened.proposals : []), ...words };
    const saved = await reviews.save(id, opened.revision, document);
    if (isPublished) await reviews.publish(id, saved.revision);
    if (later) await scoring.notePrice(unit.id, { ...later, currency: 'EUR', kind: 'street' });
    job.progress(i + 1);
  }
  job.finish();
}
