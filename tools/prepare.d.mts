export declare const root: string;
export declare function ensurePackages(): void;
export declare function ensureNodeBuild(force?: boolean): Promise<void>;
export declare function ensureWebBuild(force?: boolean): Promise<void>;
/** Builds where a source is another one than at the last time. */
export function ensureBuild(
  name: string,
  sources: readonly string[],
  build: () => unknown,
  force?: boolean,
  folder?: string,
): Promise<void>;
