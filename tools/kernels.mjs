// npm run kernels: compiles kernels/*.ts (AssemblyScript) and writes the bytes into the core as modules, so that
// neither building nor running needs the compiler. tools/kernels.test.ts checks that both belong together.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import asc from 'assemblyscript/asc';

const root = join(import.meta.dirname, '..');

/** Kernel (its sources may import others of the folder), and the name of the constant that holds it. */
export const KERNELS = {
  fft: 'FFT_KERNEL',
  'hann-frames': 'HANN_FRAMES_KERNEL',
  'channel-block': 'CHANNEL_BLOCK_KERNEL',
  cholesky: 'CHOLESKY_KERNEL',
  'place-moves': 'PLACE_MOVES_KERNEL',
  'sample-decoder': 'SAMPLE_DECODER_KERNEL',
};

/** They work in the memory of another one. */
const GUESTS = ['hann-frames'];

const folder = join(root, 'kernels');
const sources = readdirSync(folder);

/** Linear algebra and places belong to the statistics, what a file holds to audio, the others to the signal. */
const ROOMS = { cholesky: 'stats', 'place-moves': 'stats', 'sample-decoder': 'audio' };
export const moduleOf = (kernel) => join(root, `src/core/${ROOMS[kernel] ?? 'dsp'}/${kernel}-kernel.ts`);

/** The module that a kernel compiles to now. */
export async function compiledModule(kernel) {
  let bytes;
  const { error, stderr } = await asc.main(
    [
      ...[`${kernel}.ts`, '-O3', '--runtime', 'stub', '--enable', 'simd', '--noAssert', '--outFile', 'kernel.wasm'],
      ...(GUESTS.includes(kernel) ? ['--importMemory'] : []),
    ],
    {
      readFile: (name) => (sources.includes(name) ? readFileSync(join(folder, name), 'utf8') : null),
      writeFile: (name, data) => {
        if (name === 'kernel.wasm') bytes = data;
      },
      listFiles: () => [],
    },
  );
  if (error) throw new Error(`${error.message}\n${stderr.toString()}`);
  const lines = Buffer.from(bytes)
    .toString('hex')
    .match(/.{1,100}/g)
    .map((part) => `  '${part}',`);
  return (
    `// Made from kernels/${kernel}.ts by \`npm run kernels\`; do not edit.\n\n` +
    `/** WebAssembly, in hexadecimal. */\nexport const ${KERNELS[kernel]} = [\n${lines.join('\n')}\n].join('');\n`
  );
}

if (process.argv[1] === import.meta.filename) {
  for (const kernel of Object.keys(KERNELS)) writeFileSync(moduleOf(kernel), await compiledModule(kernel));
}
