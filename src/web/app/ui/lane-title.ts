/** A unit with what sets its take apart from others of it: voice, place, what was done to it. */
export const laneTitle = ({ unit, words }: { readonly unit: string; readonly words: string }): string =>
  words === '' ? unit : `${unit}, ${words}`;
