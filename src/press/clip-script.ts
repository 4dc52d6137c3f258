/** What the script of a page calls itself for clips that lie beside it (src/reader/clip-bytes.ts). */
const HANDS_OVER = 'sedimentClip';

/** A clip as a script: what stands before its bytes, and what behind them. */
export const clipScript = (href: string): { readonly before: string; readonly after: string } => ({
  before: `${HANDS_OVER}(${JSON.stringify(href)},"`,
  after: '");\n',
});
