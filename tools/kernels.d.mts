export declare const kernelModule: string;
export declare function compileFft(): Promise<Uint8Array>;
export declare function moduleText(bytes: Uint8Array): string;
