/**
 * The look of everything that is published: the house's own tokens, light and dark by the reader's system, and on paper.
 * It names no font of its own: a page that is handed out loads nothing.
 */
const TOKENS = {
  chalk: `--ground:#f2f4f1;--panel:#fbfcfa;--ink:#1e2529;--quiet:#5c686d;--rule:#d3dad6;--azurite:#2a5c9a;--soft:#dfe8f2;--realgar:#b0410f;--mark:#d4561c;--malachite:#24694a;--ochre:#7d5609;--cinnabar:#a5332a;--on:#ffffff`,
  basalt: `--ground:#14181a;--panel:#1b2123;--ink:#e6ebe8;--quiet:#94a19f;--rule:#2e373a;--azurite:#86b0e4;--soft:#1e2c3d;--realgar:#f0895a;--mark:#e2672c;--malachite:#63bb93;--ochre:#dcae58;--cinnabar:#e88a80;--on:#0d1418`,
} as const;

/** What charts are drawn with, on a page and by themselves. */
const CHART = `
.grid{stroke:var(--rule);stroke-width:1}
.axis{fill:var(--quiet);font-size:11px}
.label{fill:var(--ink);font-size:12px}
.own-label{fill:var(--ink);font-size:12px;font-weight:700;paint-order:stroke;stroke:var(--panel);stroke-width:4px}
.own{stroke:var(--mark);fill:none;stroke-width:2}
.own-dot{fill:var(--mark)}
.other-dot{fill:var(--panel);stroke:var(--ink);stroke-width:1.25}
.stairs{stroke:var(--azurite);fill:none;stroke-width:1.5;stroke-dasharray:5 3}
.whisker{stroke:var(--ink);stroke-width:1.5}
.whisker-dot{fill:var(--ink)}
.own-row .whisker{stroke:var(--mark)}
.own-row .whisker-dot{fill:var(--mark)}
.doubt{fill:var(--rule);opacity:.5}
.ground{fill:var(--panel)}
`;

/** Of a picture that stands by itself, in one theme; colours by their values, since not every program knows names. */
export function pictureStyle(theme: keyof typeof TOKENS): string {
  const values = new Map(TOKENS[theme].split(';').map((token) => token.split(':') as [string, string]));
  const style = `svg{font-family:system-ui,'Helvetica Neue',Arial,sans-serif}${CHART}.ink{fill:var(--ink)}.quiet{fill:var(--quiet)}`;
  return style.replaceAll(/var\((--[a-z]+)\)/g, (_, name: string) => values.get(name) ?? 'currentColor');
}

export const PAGE_STYLE = `
:root{color-scheme:light dark;${TOKENS.chalk}}
@media (prefers-color-scheme:dark){:root{${TOKENS.basalt}}}
*,*::before,*::after{box-sizing:border-box}
html{font-size:16px;-webkit-text-size-adjust:100%}
body{margin:0;background:var(--ground);color:var(--ink);font-family:system-ui,'Helvetica Neue',Arial,sans-serif;line-height:1.5;font-variant-numeric:tabular-nums}
main,header.top,footer.end{max-width:60rem;margin:0 auto;padding:0 1rem}
header.top{padding-top:1.5rem}
footer.end{padding-bottom:3rem;color:var(--quiet);font-size:.875rem}
a{color:var(--azurite)}
a:focus-visible,button:focus-visible,summary:focus-visible,input:focus-visible,[tabindex]:focus-visible{outline:2px solid var(--azurite);outline-offset:2px}
h1{font-size:1.9rem;line-height:1.15;margin:.25rem 0}
h2{font-size:1.25rem;margin:2.5rem 0 .75rem;border-top:1px solid var(--rule);padding-top:1rem}
h3{font-size:1rem;margin:1.25rem 0 .5rem}
p{margin:.5rem 0;max-width:44rem}
.lead{font-size:1.2rem;max-width:44rem}
.quiet{color:var(--quiet)}
.small{font-size:.875rem}
.num{font-family:ui-monospace,'SF Mono',Menlo,Consolas,monospace;font-size:.92em;white-space:nowrap}
.panel{background:var(--panel);border:1px solid var(--rule);border-radius:2px;padding:1rem;margin:1rem 0}
.since{border-left:4px solid var(--ochre)}
.two{display:grid;grid-template-columns:repeat(auto-fit,minmax(18rem,1fr));gap:1rem}
.two>section>h3{margin-top:0}
ul.lines{list-style:none;padding:0;margin:0}
ul.lines li{padding:.3rem 0 .3rem 1.6rem;position:relative}
ul.lines li::before{position:absolute;left:0;font-weight:700}
ul.pros li::before{content:'+';color:var(--malachite)}
ul.cons li::before{content:'−';color:var(--cinnabar)}
ul.plain li::before{content:'·';color:var(--quiet)}
dl.facts{display:grid;grid-template-columns:max-content 1fr;gap:.25rem 1rem;margin:.5rem 0}
dl.facts dt{color:var(--quiet)}
dl.facts dd{margin:0}
.scroll{overflow-x:auto}
table{border-collapse:collapse;width:100%;font-size:.925rem}
caption{text-align:left;color:var(--quiet);font-size:.875rem;padding:.25rem 0}
th,td{text-align:left;padding:.4rem .6rem .4rem 0;border-bottom:1px solid var(--rule);vertical-align:top}
th{font-weight:600}
thead th{color:var(--quiet);font-weight:600;font-size:.8125rem}
td.right,th.right{text-align:right}
tr.own-row>*{background:var(--soft)}
tr.own-row>th::after{content:' ◀';color:var(--realgar)}
tr.stratum>th{padding-top:.9rem;color:var(--quiet);font-weight:600;font-size:.8125rem}
svg{max-width:100%;height:auto;display:block}
details{margin:.5rem 0}
summary{cursor:pointer;color:var(--azurite)}
.deck button{font:inherit;padding:.45rem .9rem;border:1px solid var(--azurite);background:var(--panel);color:var(--azurite);border-radius:2px;cursor:pointer;min-height:2.5rem}
.deck button[aria-pressed='true']{background:var(--azurite);color:var(--on)}
.deck .lanes{display:flex;flex-wrap:wrap;gap:.5rem;margin:.75rem 0}
.deck .row{display:flex;flex-wrap:wrap;gap:1rem;align-items:center;margin:.5rem 0}
.deck input[type='range']{accent-color:var(--azurite)}
.deck [hidden]{display:none}
.code{overflow-wrap:anywhere;white-space:normal}
.place{font-weight:600}
nav.site{max-width:60rem;margin:0 auto;padding:1rem 1rem 0;display:flex;flex-wrap:wrap;gap:.5rem 1.5rem}
ol.top3{margin:0;padding-left:1.25rem}
ul.cards{list-style:none;padding:0;display:grid;grid-template-columns:repeat(auto-fill,minmax(17rem,1fr));gap:1rem}
ul.cards>li{background:var(--panel);border:1px solid var(--rule);border-radius:2px;padding:1rem}
ul.cards :is(h2,h3){margin:0 0 .25rem;border:0;padding:0;font-size:1rem}
main>h1:first-child{margin-top:1.5rem}
figure{margin:1rem 0}
blockquote{margin:0;padding-left:.75rem;border-left:3px solid var(--rule);max-width:44rem;white-space:pre-line}
figcaption{color:var(--quiet);font-size:.875rem}
img{max-width:100%;height:auto}
@media (max-width:40rem){
h1{font-size:1.5rem}
dl.facts{grid-template-columns:1fr}
dl.facts dt{margin-top:.4rem}
}
@media print{
:root{${TOKENS.chalk};--ground:#fff;--panel:#fff}
html{font-size:11px}
@page{margin:16mm}
:is(h2,h3),tr.stratum{break-after:avoid}
tr,figure,.panel,li{break-inside:avoid}
.deck,.no-print,nav.site{display:none}
/* Paper opens nothing: what belongs to the verdict is printed open, other folded parts where the reader has opened them. */
details:not([open],.printed){display:none}
details.printed::details-content{content-visibility:visible;block-size:auto}
summary{list-style:none;color:inherit;font-weight:600}
summary::-webkit-details-marker{display:none}
table.short{break-inside:avoid}
a{color:inherit;text-decoration:none}
tr.own-row>*{background:none;font-weight:700}
}
${CHART}`;

/** The mark of a site in a browser's tab: three layers. */
export const MARK = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 16 16"><path fill="#d4561c" d="M1 2h14v3H1z"/><path fill="#1e2529" d="M1 7h14v3H1z"/><path fill="#5c686d" d="M1 12h14v2H1z"/></svg>`;
