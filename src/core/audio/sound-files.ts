/** Extensions of sound that is kept as it is. */
const PLAIN = ['wav', 'wave', 'bwf', 'rf64', 'flac'] as const;
/** Extensions of compressed files and films whose sound is decoded. */
const DECODED = ['mp3', 'm4a', 'aac', 'ogg', 'oga', 'opus', 'mp4', 'm4v', 'mov', 'webm', 'mka', 'mkv'] as const;

/** Everything that a person may choose as a take, as a file field of a page names it. */
export const ACCEPTED_SOUND = [...PLAIN, ...DECODED].map((e) => `.${e}`).join(',');

const extensionOf = (name: string): string => /\.([a-z0-9]+)$/i.exec(name)?.[1].toLowerCase() ?? '';
const isOneOf = (list: readonly string[], name: string): boolean => list.includes(extensionOf(name));

/** Whether a name is that of a sound, or of a film with sound. */
export const isSoundFile = (name: string): boolean => isOneOf(PLAIN, name) || isOneOf(DECODED, name);

/** Under which extension the original of a decoded clip is kept: its own where that is a known one. */
export const originalExtension = (name: string): string => (isOneOf(DECODED, name) ? extensionOf(name) : 'original');
