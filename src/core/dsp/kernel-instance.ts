const compiled = new Map<string, WebAssembly.Module>();

/** A kernel's memory; what it holds is never moved. */
export type KernelMemory = WebAssembly.Memory;

/** What every kernel exports. */
export interface KernelExports {
  readonly memory: KernelMemory;
}

/**
 * A kernel, with memory of its own or in that of another one. The bytes are compiled once.
 *
 * @param hex - WebAssembly in hexadecimal, as the *-kernel.ts modules hold it
 * @param memory - of the kernel that it works beside
 * @returns its exports, of the type that the caller knows
 */
export function kernelInstance<Exports extends KernelExports>(hex: string, memory?: KernelMemory): Exports {
  let module = compiled.get(hex);
  if (!module) {
    const bytes = new Uint8Array(hex.length / 2);
    for (let i = 0; i < bytes.length; i++) bytes[i] = parseInt(hex.slice(2 * i, 2 * i + 2), 16);
    module = new WebAssembly.Module(bytes);
    compiled.set(hex, module);
  }
  const exports: unknown = new WebAssembly.Instance(module, memory ? { env: { memory } } : {}).exports;
  return exports as Exports;
}
