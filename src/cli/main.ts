import { Command, CommanderError } from 'commander';
import { packageVersion } from '#server/platform/package-root';
import { analyzeCommand } from './analyze';
import { checkCommand } from './check';
import { differenceCommand } from './difference';
import { importCommand } from './import';
import { listenCommand } from './listen';
import { matchCommand } from './match';
import { peaksCommand } from './peaks';
import { rankCommand } from './rank';
import { reportError } from './report';
import { responseCommand } from './response';
import { sweepCommand } from './sweep';

const program = new Command('sediment')
  .description('Measures clips, imports runs, ranks units.')
  .version(packageVersion)
  .exitOverride()
  .configureOutput({ outputError: (text) => process.stderr.write(text) });
program.addCommand(analyzeCommand());
program.addCommand(importCommand());
program.addCommand(rankCommand());
program.addCommand(checkCommand());
program.addCommand(sweepCommand());
program.addCommand(responseCommand());
program.addCommand(differenceCommand());
program.addCommand(matchCommand());
program.addCommand(peaksCommand());
program.addCommand(listenCommand());

try {
  await program.parseAsync();
} catch (error) {
  if (error instanceof CommanderError) process.exitCode = error.exitCode;
  else reportError(error);
}
