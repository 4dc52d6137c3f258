import { ALGORITHM_VERSION, QUANTITY_IDS, quantity, type QuantityId } from '#core/measure/registry';
import { QUANTITY_GROUPS, type QuantityGroup } from '#core/measure/quantities/quantity-definition';

function entry(id: QuantityId): string {
  const { name, unit, definition, source, steps } = quantity(id);
  const needs = steps.join(', ') === 'any' ? 'any clip' : `the steps ${steps.join(', ')}`;
  return `### ${name}\n\n\`${id}\`, ${unit === '' ? 'a plain number' : `in ${unit}`}; needs ${needs}.\n\n${definition}\n\nSource: ${source}.\n`;
}

/** What is concluded from listening; not figures of a clip, so that they stand outside the registry. */
const HEARD = `## What is heard

| what | definition | source | checked against |
| --- | --- | --- | --- |
| ABX, fixed number of trials | one-sided binomial; power for a listener who is right three times in four | binomial distribution | exact sums; R \`pbinom\` |
| ABX, open-ended | likelihood ratio of 0.75 against 0.5, until it leaves 0.2…20: guessers are found to hear it in at most 5 of 100 tests, however long they go on; listeners are missed in at most 20 of 100 | Wald 1945, with Ville's bounds | both errors computed exactly over all courses of 400 trials |
| guessed names | rencontres numbers; several rounds by convolution | Riordan 1958 | published numbers of 7; all courses of two rounds of 3 |
| pairs | Bradley & Terry 1952; ties by Davidson 1970; covariates | | R BradleyTerry2 (baseball with and without home advantage, journal citations), R psychotools (SoundQuality, ties) |
| heats, ratings as orders | Plackett 1975, Luce 1959; equal ratings as all their pairs, weighted to one order | | R survival \`clogit\` |
| the scale | all of these together, a normal prior of standard deviation 2 on each log worth; covariance of answers that hang together by listener, tastes about the common worths with a prior of ±0.7; places from 400 draws | Laplace's approximation; Liang & Zeger 1986 | draws against the covariance; one more answer against a whole fit; simulated listeners (docs/coverage.md) |
| agreement | Kendall's W, Friedman's test, corrected for ties | Kendall & Babington Smith 1939, Friedman 1937 | R \`friedman.test\` on Hollander & Wolfe's rounding times |
| consistency | circular triads, coefficient of consistence | Kendall & Babington Smith 1940 | counting every triad; simulation |
| ratings | post-screening (hidden reference below 90, or 7 kHz anchor above 90, in more than 15 % of the trials); medians, quartiles, interval of the median from order statistics | ITU-R BS.1534-3 (from memory); Conover | its rules; tables of the sign test |
| effects that should not be there | a covariate beside the worths, likelihood ratio test: first heard, louder, known by name | Agresti, Categorical Data Analysis; Wilks 1938 | made with and without an effect |
| next question | the pair, or heat, whose answer is expected to narrow the unit's log worth (places, for heats) most, averaged over what is not known yet | | simulation: questions by goal, for 15, 30 and 200 units (docs/coverage.md); right stratum in at least 9 of 10 runs |
| heard points | curve of the rubric over log odds against the middle unit | common practice, no source | |
| low-pass anchors | linear phase, flat to 3.5 or 7 kHz within 0.1 dB, 25 dB down at 1.14 and 50 dB at 1.29 times that | ITU-R BS.1534-3 (from memory) | tones |
| same word in another reading | dynamic time warping of band levels, mean spectrum taken off; beginning and end of each phrase | Sakoe & Chiba 1978 | a made-up text read twice, to 0.1 s |
`;

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
- Speech and silence are found from K-weighted power in frames of 20 ms; the noise is read in all pauses, trimmed. Clicks and sounds in them are left out; a pause of zeros, a gate, automatic gain and the tail of a room are told, and make the figure a limit or refuse it. Nothing below what the sample format can hold is a figure.
- The ± of a figure is about this reading: other moments of the same take. Where another reading (the same voice, unit and place on another day) is less sure, both are shown; how much readings differ comes from repeats in the archive, and from a prior of the trade where there are few. Neither is about another voice, room or specimen. docs/coverage.md says how often each holds the truth in simulation.
- Figures show as many digits as their ± leaves.

${groups.join('\n')}
${HEARD}`;
}
