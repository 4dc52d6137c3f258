/** What goes into a text. */
export interface TextResponse {
  readonly points: readonly { readonly hz: number; readonly db: number | null; readonly coherence?: number }[];
  readonly lowestValidHz: number;
}

/**
 * A response as plain text that spreadsheets and other measuring programs read: comment lines that begin with an
 * asterisk, then frequency in hertz and level in dB (and coherence, where it was measured), separated by tabs.
 *
 * @param response - points in rising order
 * @param title - what it is of, one line
 */
export function responseText(response: TextResponse, title: string): string {
  const { points, lowestValidHz } = response;
  const hasCoherence = points.some((p) => p.coherence !== undefined);
  const rows = points
    .filter((p) => p.db !== null)
    .map((p) =>
      [p.hz.toFixed(3), (p.db ?? 0).toFixed(3), ...(hasCoherence ? [(p.coherence ?? 0).toFixed(4)] : [])].join('\t'),
    );
  return [
    `* ${title.replaceAll('\n', ' ')}`,
    `* valid from ${lowestValidHz.toFixed(1)} Hz`,
    `* frequency/Hz\tlevel/dB${hasCoherence ? '\tcoherence' : ''}`,
    ...rows,
    '',
  ].join('\n');
}
