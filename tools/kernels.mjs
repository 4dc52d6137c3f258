// npm run kernels: compiles kernels/*.ts (AssemblyScript) and writes the bytes into the core as a module, so that
// neither building nor running needs the compiler. tools/kernels.test.ts checks that both belong together.
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import asc from 'assemblyscript/asc';

const root = join(import.meta.dirname, '..');
export const kernelModule = join(root, 'src/core/dsp/fft-kernel.ts');

/** The bytes that the compiler makes of the FFT kernel now. */
export async function compileFft() {
  let bytes;
  const files = { 'fft.ts': readFileSync(join(root, 'kernels/fft.ts'), 'utf8') };
  const { error, stderr } = await asc.main(
    ['fft.ts', '-O3', '--runtime', 'stub', '--enable', 'simd', '--noAssert', '--outFile', 'fft.wasm'],
    {
      readFile: (name) => files[name] ?? null,
      writeFile: (name, data) => {
        if (name === 'fft.wasm') bytes = data;
      },
      listFiles: () => [],
    },
  );
  if (error) throw new Error(`${error.message}\n${stderr.toString()}`);
  return bytes;
}

export function moduleText(bytes) {
  const hex = Buffer.from(bytes).toString('hex');
  const lines = hex.match(/.{1,100}/g).map((part) => `  '${part}',`);
  return `// Made from kernels/fft.ts by \`npm run kernels\`; do not edit.\n\n/** WebAssembly of the FFT kernel, in hexadecimal. */\nexport const FFT_KERNEL = [\n${lines.join('\n')}\n].join('');\n`;
}

if (process.argv[1] === import.meta.filename) {
  writeFileSync(kernelModule, moduleText(await compileFft()));
}
