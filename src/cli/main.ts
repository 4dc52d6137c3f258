import { Command, CommanderError } from 'commander';
import { packageVersion } from '#server/package-root';
import { analyzeCommand } from './analyze';
import { importCommand } from './import';
import { rankCommand } from './rank';
import { reportError } from './report';

const program = new Command('sediment')
  .description('Measures clips, imports runs, ranks units.')
  .version(packageVersion)
  .exitOverride()
  .configureOutput({ outputError: (text) => process.stderr.write(text) });
program.addCommand(analyzeCommand());
program.addCommand(importCommand());
program.addCommand(rankCommand());

try {
  await program.parseAsync();
} catch (error) {
  if (error instanceof CommanderError) process.exitCode = error.exitCode;
  else reportError(error);
}
