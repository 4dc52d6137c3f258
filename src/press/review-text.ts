import { describedBy } from './described-by';
import type { Edition } from '#contracts/edition';
import type { Quotation, ReviewLine } from '#contracts/review';
import { disclosureText } from './review/disclosure';

/** What a film's description may hold on most sites (common practice, no source). */
export const MOST_FILM_LETTERS = 5000;

const titleOf = ({ unit }: Edition): string => `${unit.maker} ${unit.model} (${unit.label})`;
const bullets = (lines: readonly string[]): string[] => lines.map((l) => `- ${l}`);
const texts = (lines: readonly ReviewLine[]): string[] => lines.map((l) => l.text);
const usesOf = ({ text }: Edition, suits: 'for' | 'not for'): string[] =>
  text.uses.filter((u) => u.suits === suits).map((u) => `${u.use}: ${u.text}`);

/** A part with its heading; nothing where it says nothing. */
const part = (heading: string, lines: readonly string[]): string[] =>
  lines.length === 0 ? [] : [heading, '', ...lines, ''];

/** A cell of a Markdown table: no bar may end it. */
const cell = (text: string): string => text.replaceAll('|', '\\|').replaceAll('\n', ' ');

/** Who said it, and when. */
export const quotedFrom = ({ saidBy, saidOn }: Pick<Quotation, 'saidBy' | 'saidOn'>): string =>
  [saidBy.trim() === '' ? 'a listener' : saidBy.trim(), ...(saidOn === null ? [] : [saidOn])].join(', ');

/** How the unit is described, and where those who describe it disagree. */
const describedLines = ({ words }: Edition): string[] => [
  ...describedBy(words).map(({ by, text }) => `${by}: ${text}`),
  ...words.contradictions.map((c) => `They disagree: ${c}`),
];

/** A whole review as Markdown, figures as tables. */
export function reviewMarkdown(edition: Edition): string {
  const { text, figures, ranking, price, publishedOn, number, desk } = edition;
  const measured = figures.filter((f) => f.group !== 'recording');
  const own = ranking?.rows.find((r) => r.unit === ranking.own);
  const lines = [
    `# ${titleOf(edition)}`,
    '',
    `**${text.headline}**`,
    '',
    `*${[desk, `edition ${number}`, publishedOn].filter((p) => p !== '').join(', ')}. ${disclosureText(text)}${price ? ` ${price.amount} ${price.currency} (${price.kind}, ${price.date}).` : ''}*`,
    '',
    ...(text.summary.trim() === '' ? [] : [text.summary.trim(), '']),
    ...part('## For it', bullets(texts(text.pros))),
    ...part('## Against it', bullets(texts(text.cons))),
    ...part('## For whom', bullets(usesOf(edition, 'for'))),
    ...part('## Not for whom', bullets(usesOf(edition, 'not for'))),
    ...part('## Better alternatives', bullets(text.alternatives.map((a) => `**${a.name}**: ${a.text}`))),
    ...part('## Price that turns the verdict', text.turningPrice ? [text.turningPrice.text] : []),
    ...part(
      '## Said by others',
      text.quotations.flatMap((q) => [`> ${q.words.replaceAll('\n', '\n> ')}`, '>', `> — ${quotedFrom(q)}`, '']),
    ),
    ...part('## How it is described', bullets(describedLines(edition))),
    ...part('## Worked out', bullets(texts(text.sums))),
    ...part('## Not tested', bullets(texts(text.notTested))),
    ...part(
      '## Where it stands',
      own && ranking
        ? [`Place ${own.place} of ${ranking.of} on ${publishedOn}, with 90 % probability between ${own.rank90[0]} and ${own.rank90[1]}.`] // prettier-ignore
        : [],
    ),
    ...part(
      '## Measured',
      measured.length === 0
        ? []
        : [
            '| Figure | Value | Condition | Read |',
            '| --- | ---: | --- | --- |',
            ...measured.map((f) => `| ${cell(f.name)} | ${cell(f.text)} | ${cell(f.notMeasured ?? f.condition)} | ${f.day}, ${cell(f.protocol)} |`), // prettier-ignore
          ],
    ),
    ...part('## How it was made', [
      ...(text.conditions.trim() === '' ? [] : [text.conditions.trim(), '']),
      ...bullets(edition.settings.map((s) => `${s.step}: ${s.text}`)),
    ]),
    ...part('## Links', bullets(text.links.map((l) => `[${l.label}](${l.address})`))),
    ...part(`## Changed in edition ${number}`, bullets(edition.changes.map((c) => c.text))),
  ];
  return `${lines.join('\n').trim()}\n`;
}

/** A text that keeps within a limit, and what had to be left out for it. */
export interface LimitedText {
  readonly text: string;
  readonly leftOut: readonly string[];
}

/** A moment of a film: hours only where there are any. */
export function filmTime(seconds: number): string {
  const whole = Math.floor(seconds);
  const two = (n: number): string => String(n).padStart(2, '0');
  const [h, m, s] = [Math.floor(whole / 3600), Math.floor((whole % 3600) / 60), whole % 60];
  return h > 0 ? `${h}:${two(m)}:${two(s)}` : `${m}:${two(s)}`;
}

/**
 * Plain text for a film's description: disclosure first, then what a viewer needs to judge what is heard. Parts that do
 * not fit are left out whole, the least needed first, and named.
 *
 * @param edition - as it was published
 * @param most - letters (UTF-16 units) that the text may have
 */
export function filmText(edition: Edition, most: number = MOST_FILM_LETTERS): LimitedText {
  const { text, chapters, price } = edition;
  // Most needed first; what is behind them goes first where there is no room.
  const parts: [string, string[]][] = [
    ['title', [titleOf(edition), text.headline]],
    ['disclosure', [disclosureText(text)]],
    ['boosts applied', text.appliedBoosts === '' ? [] : [`Applied to what is heard: ${text.appliedBoosts}`]],
    ['chapters', chapters.length === 0 ? [] : chapters.map((c) => `${filmTime(c.atS)} ${c.title}`)],
    ['for and against', [...texts(text.pros).map((t) => `+ ${t}`), ...texts(text.cons).map((t) => `− ${t}`)]],
    ['links', text.links.map((l) => `${l.label}: ${l.address}`)],
    ['for whom', [...usesOf(edition, 'for').map((t) => `For: ${t}`), ...usesOf(edition, 'not for').map((t) => `Not for: ${t}`)]], // prettier-ignore
    ['alternatives', text.alternatives.map((a) => `Better: ${a.name}: ${a.text}`)],
    ['price', price ? [`Price: ${price.amount} ${price.currency} (${price.kind}, ${price.date})`] : []],
    ['settings', edition.settings.map((s) => `${s.step}: ${s.text}`)],
    ['licence of the clips', edition.clipLicence === '' ? [] : [`Clips: ${edition.clipLicence}`]],
  ];
  const kept: string[] = [];
  const leftOut: string[] = [];
  for (const [name, lines] of parts) {
    if (lines.length === 0) continue;
    const block = lines.join('\n');
    const length = [...kept, block].join('\n\n').length + 1;
    if (length <= most) kept.push(block);
    else leftOut.push(name);
  }
  return { text: `${kept.join('\n\n')}\n`, leftOut };
}
