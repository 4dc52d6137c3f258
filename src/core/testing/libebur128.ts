import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';

/** The reference: libebur128 compiled to wasm (npm package ebur128-wasm), which plain Node cannot import by itself. */
export interface Libebur128 {
  ebur128_integrated_mono(sampleRate: number, samples: Float32Array): number;
  ebur128_integrated_stereo(sampleRate: number, left: Float32Array, right: Float32Array): number;
  ebur128_true_peak_mono(sampleRate: number, samples: Float32Array): number;
}

export async function loadLibebur128(): Promise<Libebur128> {
  const folder = createRequire(import.meta.url)
    .resolve('ebur128-wasm/package.json')
    .replace(/package\.json$/, '');
  const source = readFileSync(`${folder}ebur128_wasm_bg.js`, 'utf8');
  const bytes = readFileSync(`${folder}ebur128_wasm_bg.wasm`);
  const compiled = await WebAssembly.compile(bytes);
  // Its glue code imports the wasm as a module; here that import is replaced by an instance made by hand.
  const holder = globalThis as unknown as { ebur128Exports?: WebAssembly.Exports };
  const glue = source.replace(
    /import \* as wasm from [^;]+;/,
    'const wasm = new Proxy({}, { get: (_, key) => globalThis.ebur128Exports[key] });',
  );
  const url = `data:text/javascript;base64,${Buffer.from(glue).toString('base64')}`;
  const module = (await import(/* @vite-ignore */ url)) as Record<string, WebAssembly.ImportValue>;
  const imports = Object.fromEntries(
    WebAssembly.Module.imports(compiled).map(({ module: name }) => [
      name,
      module as unknown as WebAssembly.ModuleImports,
    ]),
  );
  holder.ebur128Exports = (await WebAssembly.instantiate(compiled, imports)).exports;
  return module as unknown as Libebur128;
}
