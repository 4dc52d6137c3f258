export declare const root: string;
export declare function ensurePackages(): void;
export declare function ensureNodeBuild(force?: boolean): Promise<void>;
export declare function ensureWebBuild(force?: boolean): Promise<void>;
