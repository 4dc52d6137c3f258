export declare function importedPath(file: string, specifier: string): string | null;
export declare function testsOf(
  changed: readonly string[],
  tests: readonly string[],
  read: (file: string) => string,
): string[];
