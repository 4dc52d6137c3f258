import { readFileSync } from 'node:fs';
import { Command } from 'commander';
import { AnswerTable } from '#core/stats/comparison-answers';
import { comparisonGraph, unbeaten } from '#core/stats/comparison-graph';
import { fitWorths, USUAL_PENALTY } from '#core/stats/fit-worths';
import { errorsAgainst, worthPosterior } from '#core/stats/worth-posterior';
import { scaleFrom } from '#core/stats/worth-scale';
import { readAnswersCsv } from '#worker/answers-csv';
import { numberOption } from './number-option';
import { figure } from './report';

interface FitOptions {
  readonly csv: string;
  readonly penalty: number;
  readonly reference?: string;
  readonly json?: boolean;
}

interface FittedItem {
  readonly name: string;
  readonly worth: number;
  readonly logWorth: number;
  readonly se: number;
  readonly place: number;
  readonly place90: readonly [number, number];
}

/** sediment listen fit --csv FILE */
export function listenCommand(): Command {
  return new Command('listen').description('what blind answers say').addCommand(
    new Command('fit')
      .description('fit one scale of worths to answers of pairs (Bradley–Terry, with ties as by Davidson)')
      .requiredOption('--csv <file>', 'columns winner, loser, tie (0 or 1), and if wanted count and weight')
      .addOption(
        numberOption('--penalty <precision>', 'precision of the prior on each log worth; 0 for maximum likelihood', {
          low: 0,
          high: 1000,
        }).default(USUAL_PENALTY.worth),
      )
      .option('--reference <name>', 'zero line of log worths and their errors, in place of the mean of all')
      .option('--json', 'print an object')
      .action((options: FitOptions) => {
        const result = fit(readFileSync(options.csv, 'utf8'), options);
        process.stdout.write(options.json ? `${JSON.stringify(result, null, 2)}\n` : text(result));
      }),
  );
}

function fit(csv: string, { csv: file, penalty, reference }: FitOptions) {
  const { answers, problems } = readAnswersCsv(csv);
  if (problems.length > 0)
    throw new Error(`${file}:\n${problems.map((p) => `  ${p.field ? `${p.field}: ` : ''}${p.message}`).join('\n')}`);
  const names = [...new Set(answers.flatMap((a) => [a.winner, a.loser]))];
  const index = new Map(names.map((name, i) => [name, i]));
  const at = (name: string): number => index.get(name) ?? -1;
  const table = new AnswerTable(names.length);
  const tiesAllowed = answers.some((a) => a.isTie);
  for (const { winner, loser, isTie, count, weight } of answers)
    table.addPair({ a: at(winner), b: at(loser), outcome: isTie ? 0.5 : 1, tiesAllowed, weight: count * weight });
  const alone = penalty === 0 ? unbeaten(table) : null;
  if (alone) {
    const who = alone.slice(0, 5).map((i) => names[i]);
    throw new Error(
      `Without a penalty there is no finite answer: nothing else was ever preferred to ${who.join(', ')}${alone.length > 5 ? ' …' : ''}, or never met it. Use --penalty ${USUAL_PENALTY.worth}, or add answers.`,
    );
  }
  const zero = reference === undefined ? null : at(reference);
  if (zero === -1) throw new Error(`There is no "${reference}" among the names of ${file}.`);
  const fitted = fitWorths(table, { worth: penalty, others: penalty === 0 ? 0 : USUAL_PENALTY.others });
  const posterior = worthPosterior(fitted, { draws: 2000 });
  const graph = comparisonGraph(table);
  const scale = scaleFrom(fitted, posterior, graph);
  const errors = zero === null ? null : errorsAgainst(posterior, zero);
  const items: FittedItem[] = scale.items
    .map(({ worth, logWorth, se, place, place90 }, i) => ({
      name: names[i],
      worth,
      logWorth: zero === null ? logWorth : logWorth - scale.items[zero].logWorth,
      se: errors ? errors[i] : se,
      place,
      place90,
    }))
    .sort((a, b) => a.place - b.place);
  return {
    items,
    logLikelihood: fitted.logLikelihood,
    tie: fitted.tie,
    components: graph.components,
    iterations: fitted.iterations,
  };
}

function text({ items, logLikelihood, tie, components, iterations }: ReturnType<typeof fit>): string {
  const lines = items.map(
    (i) =>
      `${i.place}\t(${i.place90[0]}–${i.place90[1]})\t${i.worth.toFixed(5)}\t${figure(i.logWorth, 3, '')}±${i.se.toFixed(3)}\t${i.name}`,
  );
  return [
    'place\t(90 %)\tworth\tlog worth\tname',
    ...lines,
    `log likelihood ${figure(logLikelihood, 3, '')}; tie parameter ${tie.toFixed(3)}; ${components} connected ${components === 1 ? 'part' : 'parts'}; ${iterations} steps`,
    '',
  ].join('\n');
}
