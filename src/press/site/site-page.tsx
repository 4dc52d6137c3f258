import type { ComponentChildren } from 'preact';
import { renderToStaticMarkup } from 'preact-render-to-string';
import { PICTURE_SIZES } from '#contracts/picture';
import { pageJson } from '../review/listen';

/** What every page of a site shares. */
export interface SiteFrame {
  readonly desk: string;
  /** Where the site stands, without a stroke at its end; empty where nobody has said. */
  readonly address: string;
  readonly style: string;
  readonly reader: string;
  readonly search: string;
  readonly mark: string;
}

interface SitePage {
  readonly frame: SiteFrame;
  /** Path of the page in the site. */
  readonly path: string;
  readonly title: string;
  readonly description: string;
  readonly body: ComponentChildren;
  readonly scripts?: readonly ('reader' | 'search')[];
  /** Path of a picture that goes with a link to the page. */
  readonly picture?: string | null;
  /** schema.org, as JSON-LD. */
  readonly data?: object | null;
}

/** The way from one page of the site to another; it works wherever the site is put, and from a folder. */
export function way(from: string, to: string): string {
  const depth = from.split('/').length - 1;
  return '../'.repeat(depth) + to;
}

/** Pages load style, script, clips and pictures of their own site, and nothing else. */
const POLICY =
  "default-src 'none'; style-src 'self'; script-src 'self'; img-src 'self'; connect-src 'self'; media-src 'self'; base-uri 'none'; form-action 'none'";

/** A page of a site. */
export function sitePage({
  frame,
  path,
  title,
  description,
  body,
  scripts = [],
  picture = null,
  data = null,
}: SitePage): string {
  const absolute = frame.address === '' ? null : `${frame.address}/${path.replace(/(^|\/)index\.html$/, '$1')}`;
  const name = frame.desk || 'Reviews';
  return `<!doctype html>\n${renderToStaticMarkup(
    <html lang="en">
      <head>
        <meta charset="utf-8" />
        <meta http-equiv="Content-Security-Policy" content={POLICY} />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <meta name="color-scheme" content="light dark" />
        <meta name="description" content={description} />
        <title>{title}</title>
        <meta property="og:title" content={title} />
        <meta property="og:description" content={description} />
        <meta property="og:site_name" content={name} />
        {absolute && <meta property="og:url" content={absolute} />}
        {picture && frame.address !== '' && (
          <>
            {/* Whoever follows a link from elsewhere has to know where the picture lies: an address as a whole. */}
            <meta property="og:image" content={`${frame.address}/${picture}`} />
            <meta property="og:image:type" content="image/png" />
            <meta property="og:image:width" content={String(PICTURE_SIZES['1280x720'].px.width)} />
            <meta property="og:image:height" content={String(PICTURE_SIZES['1280x720'].px.height)} />
            <meta property="og:image:alt" content={title} />
          </>
        )}
        {absolute && <link rel="canonical" href={absolute} />}
        <link rel="icon" type="image/svg+xml" href={way(path, frame.mark)} />
        <link rel="stylesheet" href={way(path, frame.style)} />
        <link rel="alternate" type="application/atom+xml" title={name} href={way(path, 'feed.xml')} />
        {data && <script type="application/ld+json" dangerouslySetInnerHTML={{ __html: pageJson(data) }} />}
      </head>
      <body>
        <nav class="site" aria-label="Site">
          <a href={way(path, 'index.html')}>{name}</a>
          <a href={way(path, 'all.html')}>All reviews</a>
          <a href={way(path, 'blind.html')}>Blind tests</a>
        </nav>
        {body}
        {scripts.map((s) => (
          <script key={s} src={way(path, frame[s])} defer />
        ))}
      </body>
    </html>,
  )}\n`;
}
