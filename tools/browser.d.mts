export declare const CHROMIUM: string;
export declare const CHROMIUM_FLAGS: string[];
export declare function ensureBrowser(): void;
