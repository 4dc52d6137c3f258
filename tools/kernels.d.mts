export declare const KERNELS: Readonly<Record<string, string>>;
export declare function moduleOf(kernel: string): string;
export declare function compiledModule(kernel: string): Promise<string>;
