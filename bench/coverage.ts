import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { share, type Coverage } from '#core/testing/studies/coverage';
import { listeningStudy, type ListeningDesign } from '#core/testing/studies/listening';
import { noiseReSpeechStudy, pauseFaults, shortPause } from '#core/testing/studies/noise';
import { placingStudy } from '#core/testing/studies/placing';
import { anotherReadingStudy, rigStudy } from '#core/testing/studies/rig';
import { ladderStudy, noisyRoomStudy, responseStudy, roomStudy } from '#core/testing/studies/sweeps';
import { packageRoot } from '#server/platform/package-root';

// npm run coverage: how often each ± holds a truth that is known, by seeded simulation; writes docs/coverage.md.
// To be run whenever a measurement changes. `npm run coverage quick` takes a tenth of the trials and writes nothing.

const isQuick = process.argv.includes('quick');
const trials = (count: number): number => Math.max(4, Math.round(isQuick ? count / 10 : count));
const percent = (x: number): string => (Number.isNaN(x) ? '—' : `${Math.round(100 * x)} %`);
const lines: string[] = [];
const say = (text: string): void => {
  lines.push(text);
  process.stdout.write(`${text}\n`);
};

function table(title: string, rows: readonly Coverage[], remark: string): void {
  say(
    `\n## ${title}\n\n${remark}\n\n| figure | trials | given | limits | truth within ±2u | error, RMS |\n|---|---|---|---|---|---|`,
  );
  for (const r of rows)
    say(`| ${r.figure} | ${r.trials} | ${r.given} | ${r.limits} | ${percent(share(r))} | ${r.rms.toPrecision(2)} |`);
}

const began = Date.now();
say(`# Coverage

Made by \`npm run coverage\` (seeded; every number comes again); do not edit. A ± is one standard uncertainty; what is
stated is that two of it hold the truth in 95 of 100 cases, and it is looked for in 93 to 97, beyond what so many trials
scatter by (at 95 %: 24 trials ±9, 100 ±4, 300 ±2.5). "Given" are the figures that were not refused in words; a limit holds where
the truth lies on its side.`);

table(
  'Noise',
  [...(await pauseFaults(trials(24))), ...(await shortPause(trials(300))), ...(await noiseReSpeechStudy(trials(24)))],
  'Spoken takes of 18 s with four pauses, noise of a room (corner 60 Hz) at −75 dB; the truth is the noise that the words stand in. This take, not another.',
);
table(
  'Rooms',
  [...roomStudy(trials(100)), ...noisyRoomStudy(trials(12))],
  'Decaying noise of a known reverberation time; then sweeps of 3 s through it in noise, whose level is that re the whole sweep.',
);
table('Responses', responseStudy(trials(80)), 'Sweep of 3 s at −6 dBFS through a known chain, noise at −40 dBFS RMS.');
table(
  'Distance ladder',
  ladderStudy(trials(1000)),
  'Five distances from 0.15 to 1.5 m; interval by the profile of the squares.',
);
table(
  'Another reading',
  anotherReadingStudy(trials(4000)),
  'Readings scatter by 0.3 of their own and by 1.0 from day to day, where 0.8 was expected.',
);

say(
  `\n## Verdict on the rig\n\nShare of rigs that are called off: those that have not changed (wanted: 5 % at most), and those of which one figure has moved by four expected deviations. "Scatter" is the true deviation between sessions re the expected one.\n\n| figures | earlier sessions | scatter | correlated | unchanged | moved |\n|---|---|---|---|---|---|`,
);
for (const figures of [1, 7, 14])
  for (const sessions of [1, 2, 5, 12])
    for (const [ratio, correlation] of figures === 7
      ? [
          [1, 0],
          [1, 0.6],
          [0.6, 0.3],
          [1.4, 0.3],
        ]
      : [[1, 0.3]])
      // prettier-ignore
      say(
        `| ${figures} | ${sessions} | ${ratio} | ${correlation} | ${percent(rigStudy({ figures, sessions, ratio, correlation }, trials(2000)))} | ${percent(rigStudy({ figures, sessions, ratio, correlation, shift: 4 }, trials(2000)))} |`,
      );

say(
  `\n## Listening\n\nShare of stated 90 % intervals that hold the truth: the log odds with which a listener drawn at random prefers one thing.\n\n| design | log worth | place | log worth if answers were counted | place if answers were counted |\n|---|---|---|---|---|`,
);
const DESIGNS: readonly ListeningDesign[] = [
  { items: 12, listeners: 1, answersEach: 120, tasteSd: 0.7 },
  { items: 12, listeners: 2, answersEach: 60, tasteSd: 0.7 },
  { items: 12, listeners: 5, answersEach: 40, tasteSd: 0.7 },
  { items: 12, listeners: 10, answersEach: 30, tasteSd: 0.7 },
  { items: 12, listeners: 10, answersEach: 30, tasteSd: 0 },
  { items: 12, listeners: 10, answersEach: 60, tasteSd: 1.2 },
  { items: 12, listeners: 10, answersEach: 30, tasteSd: 0, fades: true },
  { items: 40, listeners: 6, answersEach: 150, tasteSd: 0.7 },
];
for (const design of DESIGNS) {
  const { design: name, logWorth, place, byAnswers } = listeningStudy(design, trials(60));
  say(
    `| ${name} | ${percent(logWorth)} | ${percent(place)} | ${percent(byAnswers.logWorth)} | ${percent(byAnswers.place)} |`,
  );
}

say(
  `\n## Placing a new unit\n\nQuestions until what the person wants to know is known with 90 %, at most 120; catalogue of units whose log worths scatter by 2, eight pairs answered about each. "Expected" is what the page says before the first question (half of all units need no more).\n\n| units | asked | to be known | median | mean | nine of ten | settled | right | expected |\n|---|---|---|---|---|---|---|---|---|`,
);
for (const known of [15, 30, 200])
  for (const goal of ['half', 'beats', 'stratum'] as const)
    for (const how of ['heat', 'pair', 'random'] as const) {
      const r = placingStudy(known, how, goal, trials(known === 200 ? 5 : 14));
      say(
        `| ${known} | ${how === 'heat' ? 'orders of four' : how === 'pair' ? 'pairs' : 'random pairs'} | ${goal} | ${Math.round(r.median)} | ${r.mean.toFixed(0)} | ${Math.round(r.ninety)} | ${percent(r.settled)} | ${percent(r.right)} | ${r.expected === null ? '—' : Math.round(r.expected)} |`,
      );
    }

process.stdout.write(`\n${((Date.now() - began) / 60_000).toFixed(1)} minutes\n`);
if (!isQuick) writeFileSync(join(packageRoot, 'docs/coverage.md'), `${lines.join('\n')}\n`);
