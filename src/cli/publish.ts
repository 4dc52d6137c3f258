import { resolve } from 'node:path';
import { Command, InvalidArgumentError } from 'commander';
import { ENDPOINTS } from '#contracts/http';
import { siteReportSchema, type SiteReportJson } from '#contracts/site';
import { problemSchema } from '#contracts/problem';
import { packingOf } from '#server/publish/packing';
import { dataOption, withData } from './data-option';

const isPacking = (text: string): string => {
  if (!packingOf(text)) throw new InvalidArgumentError('say flac, or opus-96 with a bit rate of 6 to 510 kbit/s');
  return text;
};

/** sediment publish --out DIR [--clips flac|opus-96] [--data DIR] */
export function publishCommand(): Command {
  return new Command('publish')
    .description('write the static site of everything that is published')
    .requiredOption('--out <dir>', 'an empty folder, or the one that was published to before')
    .option('--clips <packing>', 'flac, or opus-96 with a bit rate', isPacking, 'flac')
    .addOption(dataOption())
    .action(async (options: { out: string; clips: string; data: string }) => {
      const out = resolve(options.out);
      const report = await withData(
        options.data,
        async (address) => {
          const response = await fetch(address + ENDPOINTS.publishSite.path, {
            method: 'POST',
            headers: { 'content-type': 'application/json' },
            body: JSON.stringify({ out, clips: options.clips }),
          });
          const answer: unknown = await response.json();
          if (!response.ok) throw new Error(problemSchema.parse(answer).error.message);
          return siteReportSchema.parse(answer);
        },
        (application) => application.site.publish(out, packingOf(options.clips) ?? { codec: 'flac' }),
      );
      process.stdout.write(words(report));
    });
}

const words = ({ folder, pages, written, kept, removed }: SiteReportJson): string =>
  `${pages} pages in ${folder}: ${written} files written, ${kept} as they were, ${removed} taken away.\n`;
