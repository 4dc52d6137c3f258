/** The little of WebAssembly that the core uses; every platform it runs on has it, but the ES library types do not. */
declare namespace WebAssembly {
  class Module {
    constructor(bytes: Uint8Array<ArrayBuffer>);
  }
  class Memory {
    readonly buffer: ArrayBuffer;
  }
  class Instance {
    constructor(module: Module, imports?: Record<string, Record<string, Memory>>);
    readonly exports: unknown;
  }
}
