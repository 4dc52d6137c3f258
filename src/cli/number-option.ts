import { InvalidArgumentError, Option } from 'commander';

/** An option that takes a number within limits. */
export function numberOption(
  flags: string,
  description: string,
  { low, high }: { readonly low: number; readonly high: number },
): Option {
  return new Option(flags, description).argParser((text) => {
    const value = Number(text);
    if (text.trim() === '' || !Number.isFinite(value) || value < low || value > high) {
      throw new InvalidArgumentError(`It must be a number from ${low} to ${high}.`);
    }
    return value;
  });
}
