export declare const CHROMIUM: string;
export declare function ensureBrowser(): void;
