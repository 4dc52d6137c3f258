import { ALGORITHM_VERSION, QUANTITY_IDS, quantity, type QuantityId } from '#core/measure/registry';
import { QUANTITY_GROUPS, type QuantityGroup } from '#core/measure/quantities/quantity-definition';

function entry(id: QuantityId): string {
  const { name, unit, definition, source, steps } = quantity(id);
  const needs = steps.join(', ') === 'any' ? 'any clip' : `the steps ${steps.join(', ')}`;
  return `### ${name}\n\n\`${id}\`, ${unit === '' ? 'a plain number' : `in ${unit}`}; needs ${needs}.\n\n${definition}\n\nSource: ${source}.\n`;
}

/** docs/measurements.md: every measurement with its definition and source, made from the registry. */
export function measurementsPage(): string {
  const groups = (Object.keys(QUANTITY_GROUPS) as QuantityGroup[]).map((group) => {
    const ids = QUANTITY_IDS.filter((id) => quantity(id).group === group);
    return `## ${QUANTITY_GROUPS[group]}\n\n${ids.map(entry).join('\n')}`;
  });
  return `# Measurements

Made from \`src/core/measure/registry.ts\` and \`quantities/\` by \`npm run docs\`; do not edit. Algorithm version ${ALGORITHM_VERSION}.

## Conventions

- **dBFS** follows AES17: a full-scale sine has an RMS level of 0 dBFS, 3.01 dB above plain RMS. Peaks are 20·log10 of the largest magnitude.
- **LUFS, LU, dBTP** follow ITU-R BS.1770-5; a file of one channel counts as one channel.
- **A** is the analytic curve of IEC 61672-1 Annex E; **Z** is unweighted; both end at 20 Hz and 20 kHz.
- **Third octaves** follow IEC 61260-1, base ten; their levels come from Welch's method (Hann, 50 % overlap, frames of 0.17 s to 0.35 s).
- **±** is the standard uncertainty (JCGM 100), one standard deviation of the figure. *s* is the standard deviation over the blocks that a figure is the mean of.
- What could not be measured says so, with the reason. It is never zero.
- **Responses** come from exponential sweeps, one point per 1/24 octave; below 1/gate they tell nothing. **Differences** of two clips come by 1/12 octave, levels matched at the median of the trusted bands; a band is trusted where coherence reaches 0.8 (one performance) or speech stands 9 dB above its pauses (two readings).
- **Lines** (hum, interference) are told from noise at about one false line in a hundred spectra; where none is found, the figure is an upper limit ("at most").
- Where a person has set speech, silence or events by hand, figures follow them; the automatic ones are kept beside them.
- Speech and silence are found from K-weighted power in frames of 20 ms; the noise is read in the longest pause, trimmed.

${groups.join('\n')}`;
}
