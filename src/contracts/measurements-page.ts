import { ALGORITHM_VERSION, QUANTITY_IDS, quantity } from '#core/measure/registry';

/** docs/measurements.md: every measurement with its definition and source, made from the registry. */
export function measurementsPage(): string {
  const rows = QUANTITY_IDS.map((id) => {
    const { name, unit, definition, source, steps } = quantity(id);
    return `### ${name}\n\n\`${id}\`, in ${unit}; needs ${steps.join(', ') === 'any' ? 'any clip' : `the steps ${steps.join(', ')}`}.\n\n${definition}\n\nSource: ${source}.\n`;
  });
  return `# Measurements

Made from \`src/core/measure/registry.ts\` by \`npm run docs\`; do not edit. Algorithm version ${ALGORITHM_VERSION}.

## Conventions

- **dBFS** follows AES17: a full-scale sine has an RMS level of 0 dBFS, 3.01 dB above plain RMS. Peaks are 20·log10 of the largest magnitude.
- **LUFS, LU, dBTP** follow ITU-R BS.1770-5; a file of one channel counts as one channel.
- **A** is the analytic curve of IEC 61672-1 Annex E; **Z** is unweighted; both end at 20 Hz and 20 kHz.
- **Third octaves** follow IEC 61260-1, base ten; their levels come from Welch's method (Hann, 50 % overlap, frames of 0.17 s to 0.35 s).
- **±** is the standard uncertainty (JCGM 100), one standard deviation of the figure. *s* is the standard deviation over the blocks that a figure is the mean of.
- What could not be measured says so, with the reason. It is never zero.
- Speech and silence are found from K-weighted power in frames of 20 ms; the noise is read in the longest pause, trimmed.

## Figures

${rows.join('\n')}`;
}
