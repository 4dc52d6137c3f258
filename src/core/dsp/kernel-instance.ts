const compiled = new Map<string, WebAssembly.Module>();

/** What every kernel exports. */
export interface KernelExports {
  readonly memory: { readonly buffer: ArrayBuffer };
}

/**
 * A kernel with memory of its own. The bytes are compiled once.
 *
 * @param hex - WebAssembly in hexadecimal, as the *-kernel.ts modules hold it
 * @returns its exports, of the type that the caller knows
 */
export function kernelInstance<Exports extends KernelExports>(hex: string): Exports {
  let module = compiled.get(hex);
  if (!module) {
    const bytes = new Uint8Array(hex.length / 2);
    for (let i = 0; i < bytes.length; i++) bytes[i] = parseInt(hex.slice(2 * i, 2 * i + 2), 16);
    module = new WebAssembly.Module(bytes);
    compiled.set(hex, module);
  }
  const exports: unknown = new WebAssembly.Instance(module).exports;
  return exports as Exports;
}
