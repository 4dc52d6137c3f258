import { Command, CommanderError } from 'commander';
import { packageVersion } from '#server/platform/package-root';
import { reportError } from './report';

/** Every command, loaded when it is asked for: measuring one file needs neither a database nor a server. */
const COMMANDS: Readonly<Record<string, () => Promise<Command>>> = {
  analyze: async () => (await import('./analyze')).analyzeCommand(),
  import: async () => (await import('./import')).importCommand(),
  rank: async () => (await import('./rank')).rankCommand(),
  check: async () => (await import('./check')).checkCommand(),
  sweep: async () => (await import('./sweep')).sweepCommand(),
  response: async () => (await import('./response')).responseCommand(),
  difference: async () => (await import('./difference')).differenceCommand(),
  tone: async () => (await import('./tone')).toneCommand(),
  match: async () => (await import('./match')).matchCommand(),
  peaks: async () => (await import('./peaks')).peaksCommand(),
  publish: async () => (await import('./publish')).publishCommand(),
  listen: async () => (await import('./listen')).listenCommand(),
};

const program = new Command('sediment')
  .description('Measures clips, imports runs, ranks units.')
  .version(packageVersion)
  .exitOverride()
  .configureOutput({ outputError: (text) => process.stderr.write(text) });
// Help, and a name that is none, need all of them; the version needs none.
const [asked = ''] = process.argv.slice(2);
const isVersion = ['-V', '--version'].includes(asked);
const wanted = Object.hasOwn(COMMANDS, asked) ? [COMMANDS[asked]] : isVersion ? [] : Object.values(COMMANDS);
for (const load of wanted) program.addCommand(await load());

try {
  await program.parseAsync();
} catch (error) {
  if (error instanceof CommanderError) process.exitCode = error.exitCode;
  else reportError(error);
}
