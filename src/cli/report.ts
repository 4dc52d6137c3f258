import { Failure } from '#server/platform/failure';

/** Tells what went wrong, one line each, and makes the command end with 1. */
export function reportError(error: unknown): void {
  const lines =
    error instanceof Failure && error.details.length > 0
      ? error.details.map((d) => [d.file, d.field, d.message].filter((part) => part !== null).join(': '))
      : [plainMessage(error)];
  for (const line of lines) process.stderr.write(`sediment: ${line.replaceAll('\n', ' ')}\n`);
  process.exitCode = 1;
}

/** A number for people: true minus, fixed decimals, "not measured" for null. */
export function figure(value: number | null, decimals: number, unit = ''): string {
  if (value === null) return 'not measured';
  return `${value.toFixed(decimals).replace('-', '−')}${unit ? ` ${unit}` : ''}`;
}

/** Messages of the operating system in plain words. */
function plainMessage(error: unknown): string {
  if (!(error instanceof Error)) return String(error);
  const { code, path } = error as NodeJS.ErrnoException;
  if (['ENOSPC', 'EDQUOT'].includes(code ?? '')) return 'there is no space left on the disk';
  if (code === 'EROFS') return 'the folder cannot be written to';
  if (code === 'ENOENT' && path) return `${path}: there is no such file or folder`;
  if (code === 'EACCES' && path) return `${path}: this may not be read or written`;
  return error.message;
}
