/** A database driver may hand out a window of a larger buffer: only that window is read, from a copy of its own. */
const ownBytes = ({ buffer, byteOffset, byteLength }: Uint8Array): ArrayBuffer =>
  new Uint8Array(buffer, byteOffset, byteLength).slice().buffer;

/** Numbers of 64 bits, as they were kept. */
export const doublesFrom = (bytes: Uint8Array): Float64Array => new Float64Array(ownBytes(bytes));

/** Numbers of 32 bits, as they were kept. */
export const floatsFrom = (bytes: Uint8Array): Float32Array => new Float32Array(ownBytes(bytes));

/** The bytes of numbers, to be kept. */
export const bytesOf = (values: Float64Array | Float32Array): Uint8Array =>
  new Uint8Array(values.buffer, values.byteOffset, values.byteLength);
