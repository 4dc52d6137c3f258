import { createHash } from 'node:crypto';
import type { ComponentChildren } from 'preact';
import { renderToStaticMarkup } from 'preact-render-to-string';

/** A page that loads nothing: style and script stand inside, and nothing else may run. */
interface LonePage {
  readonly title: string;
  readonly description: string;
  readonly style: string;
  readonly script: string;
  /** Data that scripts read: texts that are no programs. */
  readonly blocks: readonly { readonly id: string; readonly text: string }[];
  /** Whether its script brings in files that lie beside it, as scripts of their own. */
  readonly bringsFiles?: boolean;
  readonly body: ComponentChildren;
}

const sourceHash = (text: string): string => `'sha256-${createHash('sha256').update(text).digest('base64')}'`;

/** The whole of a page that stands alone, with the policy that lets nothing of another site in. */
export function lonePage({ title, description, style, script, blocks, body, bringsFiles = false }: LonePage): string {
  // What the script of the page asks for itself may run (CSP 3, strict-dynamic), wherever the folder lies; nothing else.
  const scripts = `${sourceHash(script)}${bringsFiles ? " 'strict-dynamic'" : ''}`;
  const policy = `default-src 'none'; img-src data:; style-src ${sourceHash(style)}; script-src ${scripts}; base-uri 'none'; form-action 'none'`;
  return `<!doctype html>\n${renderToStaticMarkup(
    <html lang="en">
      <head>
        <meta charset="utf-8" />
        <meta http-equiv="Content-Security-Policy" content={policy} />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <meta name="color-scheme" content="light dark" />
        <meta name="description" content={description} />
        <title>{title}</title>
        <style dangerouslySetInnerHTML={{ __html: style }} />
      </head>
      <body>
        {body}
        {blocks.map(({ id, text }) => (
          <script key={id} id={id} type="text/plain" dangerouslySetInnerHTML={{ __html: text }} />
        ))}
        <script dangerouslySetInnerHTML={{ __html: script }} />
      </body>
    </html>,
  )}\n`;
}
