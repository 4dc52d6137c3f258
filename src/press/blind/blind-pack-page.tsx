import { letterOf } from '#core/rules/listening/letters';
import type { PackAsk } from '#contracts/blind-pack';
import { lonePage } from '../page-shell';
import { pageJson } from '../review/listen';
import { PAGE_STYLE } from '../style';

/** What a pack's page is made of. Which clip is which is in none of it but the seal. */
export interface BlindPackPage {
  readonly title: string;
  readonly note: string;
  readonly question: string;
  readonly asks: readonly PackAsk[];
  readonly desk: string;
  /** Code names in the order of their letters, each with its file. */
  readonly clips: readonly { readonly name: string; readonly base64: string }[];
  /** Units to be guessed among; empty where names are not asked for. */
  readonly names: readonly string[];
  readonly tag: string;
  readonly keySha256: string;
  readonly sealedOn: string;
  readonly revealOn: string;
  /** The sealed key, base 64. */
  readonly sealed: string;
  readonly script: string;
}

const PACK_STYLE = `${PAGE_STYLE}
section.deck>h2{margin-top:0;border:0;padding-top:0}
ol.clips{list-style:none;margin:1rem 0;padding:0}
ol.clips li{display:flex;flex-wrap:wrap;gap:.5rem 1rem;align-items:center;padding:.5rem 0;border-bottom:1px solid var(--rule)}
ol.clips .hear{min-width:8rem;text-align:left}
.deck :is(input[type='text'],input[type='number'],select,textarea){font:inherit;color:var(--ink);background:var(--panel);border:1px solid var(--quiet);border-radius:2px;padding:.4rem .5rem;min-height:2.5rem;max-width:100%}
.deck input[type='number']{width:6rem}
.deck textarea{width:100%;font-family:ui-monospace,'SF Mono',Menlo,Consolas,monospace}
.deck button.small-button{padding:.3rem .6rem;min-height:2.25rem}
.deck button:disabled{opacity:.5;cursor:default}
.warn{color:var(--realgar)}
`;

const asksWords = (asks: readonly PackAsk[]): string[] => [
  ...(asks.includes('order') ? ['Put the clips in order, best on top.'] : []),
  ...(asks.includes('points') ? ['Give points from 0 to 10; leave a clip empty that you cannot judge.'] : []),
  ...(asks.includes('names') ? ['Say which unit is behind which clip.'] : []),
];

/** A page that stands alone: clips to be heard beside each other, an answer that becomes a code, a sealed key. */
export function blindPackPage(pack: BlindPackPage): string {
  const data = {
    tag: pack.tag,
    keySha256: pack.keySha256,
    asks: pack.asks,
    names: pack.names,
    clips: pack.clips.map(({ name }, i) => ({ name, letter: letterOf(i), inside: `clip-${letterOf(i)}` })),
  };
  return lonePage({
    title: pack.title,
    description: `${pack.question} Clips at equal loudness under code names.`,
    style: PACK_STYLE,
    script: pack.script,
    blocks: [
      ...pack.clips.map(({ base64 }, i) => ({ id: `clip-${letterOf(i)}`, text: base64 })),
      { id: 'sealed-key', text: pack.sealed },
    ],
    body: (
      <>
        <header class="top">
          {pack.desk !== '' && <p class="quiet">{pack.desk}</p>}
          <h1>{pack.title}</h1>
        </header>
        <main>
          <p class="lead">{pack.question}</p>
          {pack.note !== '' && pack.note.split('\n').map((line, i) => <p key={i}>{line}</p>)}
          <p>
            {pack.clips.length} clips of one step, equally loud and equally long, under code names that were drawn.
            {asksWords(pack.asks).map((words) => ` ${words}`)}
          </p>
          <p class="small">
            <strong>Start with the volume low.</strong> Clips may be louder than what you heard last.
          </p>
          <div class="panel deck" data-pack role="group" aria-label="Clips and your answer">
            <noscript>
              <p>Switching and answering here needs JavaScript. The clips also lie in the folder beside this page.</p>
            </noscript>
            <div data-player hidden />
          </div>
          <section aria-labelledby="key" class="panel deck">
            <h2 id="key">The key</h2>
            <p>
              Which clip is which was written down and sealed on {pack.sealedOn}, before anybody heard them. The seal is
              in this page; it is opened on {pack.revealOn} with a code that{' '}
              {pack.desk === '' ? 'the sender' : pack.desk} makes known. That nothing was changed is told by the key's
              SHA-256:
            </p>
            <p class="num code">{pack.keySha256}</p>
            <div data-key hidden />
          </section>
        </main>
        <footer class="end">
          <p>
            Pack {pack.tag}. This page loads nothing from outside and sends nothing: your answer goes only where you
            paste it.
          </p>
        </footer>
        <script type="application/json" id="pack-data" dangerouslySetInnerHTML={{ __html: pageJson(data) }} />
      </>
    ),
  });
}

/** What stands beside the clips of a pack, as plain text. */
export function packReadMe(
  pack: Pick<
    BlindPackPage,
    'title' | 'question' | 'asks' | 'desk' | 'clips' | 'tag' | 'keySha256' | 'sealedOn' | 'revealOn'
  >,
): string {
  return [
    pack.title,
    '',
    pack.question,
    ...asksWords(pack.asks),
    '',
    'Open listen.html in any browser: it plays the clips, switches between them without a gap, and makes a code of your answer.',
    `Or play the files in clips/ (${pack.clips.map((c) => c.name).join(', ')}): same samples, one length, one loudness.`,
    'Write your answer in words, such as "B > A > C", if you like that better.',
    '',
    `The key was sealed on ${pack.sealedOn} and is opened on ${pack.revealOn}. It is in key.sealed; the SHA-256 of its text is`,
    pack.keySha256,
    'Start with the volume low.',
    '',
  ].join('\n');
}
