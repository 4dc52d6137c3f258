import MarkdownIt from 'markdown-it';

// No HTML goes through: what a person pastes is text. Links are shown, pictures of other sites are not loaded.
const reader = new MarkdownIt('commonmark', { html: false }).disable('image');

/** Markdown as HTML that is safe to stand in a page. Headings begin below those of the page. */
export function markdownHtml(text: string): string {
  return reader.render(text).replaceAll(/<(\/?)h([1-6])>/g, (_all, slash: string, level: string) => {
    const lower = Math.min(6, Number(level) + 2);
    return `<${slash}h${lower}>`;
  });
}
