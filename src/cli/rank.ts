import Table from 'cli-table3';
import { Command } from 'commander';
import type { Category } from '#contracts/common';
import { ENDPOINTS } from '#contracts/http';
import { rankRowSchema, type RankRow } from '#contracts/ranking';
import { dataOption, withData } from './data-option';
import { figure } from './report';

/** sediment rank --category microphone --data DIR [--json] */
export function rankCommand(): Command {
  return new Command('rank')
    .description('rank every unit of a category')
    .option('--category <category>', 'kind of gear, by its name in run.json', 'microphone')
    .addOption(dataOption())
    .option('--json', 'print an array in order')
    .action(async (options: { category: Category; data: string; json?: boolean }) => {
      const rows = await withData(
        options.data,
        async (address) => {
          const response = await fetch(address + ENDPOINTS.ranking.path.replace(':category', options.category));
          return rankRowSchema.array().parse(await response.json());
        },
        (application) => application.catalogue.ranking(options.category),
      );
      process.stdout.write(options.json ? `${JSON.stringify(rows, null, 2)}\n` : table(rows));
    });
}

function table(rows: readonly RankRow[]): string {
  if (rows.length === 0) return 'Nothing has been measured in this category yet.\n';
  const criteria = Object.keys(rows[0].points);
  const lines = new Table({
    head: ['stratum', 'place', '90 %', 'unit', 'composite', ...criteria],
    style: { head: [], border: [] },
  });
  for (const row of rows) {
    lines.push([
      row.stratum,
      row.place,
      `${row.rank90[0]}–${row.rank90[1]}`,
      row.specimen,
      `${figure(row.composite, 2)} ±${row.sd.toFixed(2)}`,
      ...criteria.map((c) => (row.points[c] === null ? 'missing' : figure(row.points[c], 1))),
    ]);
  }
  return `${lines.toString()}\n`;
}
