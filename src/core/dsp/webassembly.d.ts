/** The little of WebAssembly that the core uses; every platform it runs on has it, but the ES library types do not. */
declare namespace WebAssembly {
  class Module {
    constructor(bytes: Uint8Array<ArrayBuffer>);
  }
  class Instance {
    constructor(module: Module, imports?: Record<string, never>);
    readonly exports: unknown;
  }
}
