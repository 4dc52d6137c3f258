import { Command } from 'commander';
import { archiveStateSchema, type ArchiveState } from '#contracts/archive';
import { ENDPOINTS } from '#contracts/http';
import { dataOption, withData } from './data-option';

/** How often a running server is asked whether it has read every clip. */
const ASK_MS = 500;

/** sediment check --data DIR */
export function checkCommand(): Command {
  return new Command('check')
    .description('read every clip of the archive and say what is wrong; ends with 1 where something is')
    .addOption(dataOption())
    .option('--json', 'print what was found as JSON')
    .action(async (options: { data: string; json?: boolean }) => {
      const state = await withData(options.data, throughServer, async ({ integrity }) => {
        await integrity.checkAll();
        return integrity.state();
      });
      process.stdout.write(options.json ? `${JSON.stringify(state, null, 2)}\n` : report(state));
      if (state.setAside.length > 0) process.exitCode = 1;
    });
}

async function throughServer(address: string): Promise<ArchiveState> {
  const ask = async (path: string, method: string): Promise<ArchiveState> =>
    archiveStateSchema.parse(await (await fetch(address + path, { method })).json());
  let state = await ask(ENDPOINTS.checkArchive.path, 'POST');
  while (state.isChecking) {
    await new Promise((resolve) => setTimeout(resolve, ASK_MS));
    state = await ask(ENDPOINTS.archive.path, 'GET');
  }
  return state;
}

function report({ clips, checked, setAside }: ArchiveState): string {
  const lines = setAside.map(({ name, problem, next }) => `${name}: ${problem} ${next}`);
  const found = setAside.length === 0 ? 'nothing is wrong' : `${setAside.length} things cannot be used as they are`;
  return `${[...lines, `${checked} of ${clips} clips read; ${found}.`].join('\n')}\n`;
}
