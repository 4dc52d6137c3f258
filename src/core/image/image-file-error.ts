/** A file that is no picture, or not whole, in words that a page may show. */
export class ImageFileError extends Error {}
