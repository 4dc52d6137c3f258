import { AudioFileError } from './audio-file-error';

/** Samples of one FLAC frame, as integers of the stream's depth. */
export interface FlacFrame {
  /** Samples per channel in it. */
  readonly length: number;
  /** One array per channel; only the first `length` values count, and the next frame overwrites them. */
  readonly channels: readonly Int32Array[];
  /** Bytes that it took. */
  readonly bytes: number;
}

/** What a stream's STREAMINFO says of its frames. */
export interface FlacLayout {
  readonly channels: number;
  readonly bits: number;
}

/** Largest block of a frame (RFC 9639, section 9.1.1). */
const MOST_BLOCK = 65_536;
/** Codes of the frame's bit depth; 0 means as the stream (section 9.1.4). */
const DEPTHS = [0, 8, 12, -1, 16, 20, 24, 32] as const;
/** Coefficients of the fixed predictors, newest sample first (section 9.2.5). */
const FIXED = [[], [1], [2, -1], [3, -3, 1], [4, -6, 4, -1]] as const;

/** Zeros that a residual of 25 bits can begin with. */
const MOST_RICE = 2 ** 27;

/** A frame is not whole in the bytes at hand. */
class NeedsMore extends Error {}

/**
 * Decodes FLAC frames one by one (RFC 9639, sections 9 and 10). Its arrays are made once and serve every frame.
 */
export class FlacFrameDecoder {
  private readonly channels: Int32Array[];
  private bytes: Uint8Array = new Uint8Array();
  /** Bit position in `bytes`, and where they end. */
  private bit = 0;
  private endBit = 0;

  constructor(private readonly layout: FlacLayout) {
    this.channels = Array.from({ length: layout.channels }, () => new Int32Array(MOST_BLOCK));
  }

  /**
   * Decodes the frame at the beginning of the bytes.
   *
   * @param bytes - from the first byte of a frame on
   * @param isEnd - nothing comes behind these bytes
   * @returns the frame, or null where its end is not among the bytes yet
   * @throws {@link AudioFileError} `malformed` where the bytes are no frame, or its check sums do not fit
   */
  next(bytes: Uint8Array, isEnd: boolean): FlacFrame | null {
    this.bytes = bytes;
    this.bit = 0;
    this.endBit = bytes.length * 8;
    try {
      return this.frame();
    } catch (error) {
      if (!(error instanceof NeedsMore)) throw error;
      if (isEnd) throw new AudioFileError('truncated', 'The last frame is not whole.');
      return null;
    }
  }

  private frame(): FlacFrame {
    if (this.read(15) !== 0x7ffc) throw damaged('a frame does not begin where it should');
    this.read(1);
    const sizeCode = this.read(4);
    const rateCode = this.read(4);
    const assignment = this.read(4);
    const depth = DEPTHS[this.read(3)];
    if (this.read(1) !== 0 || sizeCode === 0 || rateCode === 15 || assignment > 10 || depth < 0)
      throw damaged('a frame header is not valid');
    this.codedNumber();
    const length = sizeCode === 1 ? 192 : sizeCode < 6 ? 576 << (sizeCode - 2) : sizeCode === 6 ? this.read(8) + 1 : sizeCode === 7 ? this.read(16) + 1 : 256 << (sizeCode - 8); // prettier-ignore
    if (rateCode === 12) this.read(8);
    else if (rateCode > 12) this.read(16);
    const headerEnd = this.bit >> 3;
    if (this.read(8) !== crc8(this.bytes, headerEnd)) throw damaged('the check sum of a frame header does not fit');
    const bits = depth === 0 ? this.layout.bits : depth;
    const count = assignment < 8 ? assignment + 1 : 2;
    if (bits !== this.layout.bits || count !== this.layout.channels)
      throw damaged('a frame has another depth or other channels than the stream');
    for (let c = 0; c < count; c++) {
      // The difference of two channels needs one bit more.
      const isSide = (assignment === 8 && c === 1) || (assignment === 9 && c === 0) || (assignment === 10 && c === 1);
      this.subframe(this.channels[c], length, bits + (isSide ? 1 : 0));
    }
    if (assignment >= 8) decorrelate(assignment, this.channels[0], this.channels[1], length);
    this.bit = (this.bit + 7) & ~7;
    const end = this.bit >> 3;
    if (this.read(16) !== crc16(this.bytes, end)) throw damaged('the check sum of a frame does not fit');
    return { length, channels: this.channels, bytes: end + 2 };
  }

  /** The number of the frame or of its first sample, coded as UTF-8 codes characters; it tells nothing we need. */
  private codedNumber(): void {
    const first = this.read(8);
    let following = 0;
    while (following < 7 && (first & (0x80 >> following)) !== 0) following++;
    if (following === 1 || following > 7) throw damaged('a frame number is not valid');
    for (let i = 1; i < following; i++) if (this.read(8) >> 6 !== 2) throw damaged('a frame number is not valid');
  }

  private subframe(out: Int32Array, length: number, depth: number): void {
    if (this.read(1) !== 0) throw damaged('a subframe header is not valid');
    const type = this.read(6);
    let wasted = 0;
    if (this.read(1) === 1) wasted = this.unary() + 1;
    const bits = depth - wasted;
    if (bits < 1) throw damaged('a subframe header is not valid');
    if (type === 0) out.fill(this.readSigned(bits), 0, length);
    else if (type === 1) for (let i = 0; i < length; i++) out[i] = this.readSigned(bits);
    else if (type >= 8 && type <= 12) this.predicted(out, length, bits, type - 8, null);
    else if (type >= 32) this.predicted(out, length, bits, type - 31, bits);
    else throw damaged('a subframe is of a reserved type');
    if (wasted > 0) for (let i = 0; i < length; i++) out[i] <<= wasted;
  }

  /** Of a linear predictor (not null) the coefficients stand in the stream; those of a fixed one are known. */
  private predicted(out: Int32Array, length: number, bits: number, order: number, linear: number | null): void {
    if (order > length) throw damaged('a predictor is longer than its frame');
    for (let i = 0; i < order; i++) out[i] = this.readSigned(bits);
    let coefficients: readonly number[] = FIXED[Math.min(order, 4)];
    let shift = 0;
    if (linear !== null) {
      const precision = this.read(4) + 1;
      shift = this.readSigned(5);
      if (precision === 16 || shift < 0) throw damaged('a predictor is not valid');
      coefficients = Array.from({ length: order }, () => this.readSigned(precision));
    }
    this.residual(out, length, order);
    restore(out, length, coefficients, shift);
  }

  /** Partitioned Rice codes (section 9.2.7). */
  private residual(out: Int32Array, length: number, order: number): void {
    const method = this.read(2);
    if (method > 1) throw damaged('a residual is coded in a reserved way');
    const parameterBits = method === 0 ? 4 : 5;
    const escape = method === 0 ? 15 : 31;
    const partitions = 1 << this.read(4);
    const size = length / partitions;
    if (!Number.isInteger(size) || size < order) throw damaged('a residual is divided in a way that does not fit');
    let at = order;
    for (let p = 0; p < partitions; p++) {
      const parameter = this.read(parameterBits);
      const end = (p + 1) * size;
      if (parameter === escape) {
        const bits = this.read(5);
        for (; at < end; at++) out[at] = bits === 0 ? 0 : this.readSigned(bits);
      } else for (; at < end; at++) out[at] = this.rice(parameter);
    }
  }

  private rice(parameter: number): number {
    const high = this.unary();
    if (high > MOST_RICE) throw damaged('a residual is larger than any sample');
    const folded = high * 2 ** parameter + (parameter === 0 ? 0 : this.read(parameter));
    // Up to 2³¹ − 1 the quick way is the same.
    if (folded < 0x7fff_ffff) return (folded >>> 1) ^ -(folded & 1);
    return folded % 2 === 0 ? folded / 2 : -(folded + 1) / 2;
  }

  /** Zeros before the next one, which is taken as well. */
  private unary(): number {
    let zeros = 0;
    for (;;) {
      if (this.bit >= this.endBit) throw new NeedsMore();
      const inByte = this.bit & 7;
      const rest = (this.bytes[this.bit >> 3] << inByte) & 0xff;
      if (rest === 0) {
        zeros += 8 - inByte;
        this.bit += 8 - inByte;
        continue;
      }
      const ahead = Math.clz32(rest) - 24;
      this.bit += ahead + 1;
      return zeros + ahead;
    }
  }

  /** Up to 32 bits, as a number from 0 up. */
  private read(count: number): number {
    if (this.bit + count > this.endBit) throw new NeedsMore();
    const inWord = this.bit & 7;
    const first = this.bit >> 3;
    // Nearly all reads lie within four bytes.
    if (count > 0 && inWord + count <= 32 && first + 4 <= this.bytes.length) {
      const { bytes } = this;
      const word = (bytes[first] << 24) | (bytes[first + 1] << 16) | (bytes[first + 2] << 8) | bytes[first + 3];
      this.bit += count;
      return (word << inWord) >>> (32 - count);
    }
    let value = 0;
    let left = count;
    while (left > 0) {
      const inByte = this.bit & 7;
      const take = Math.min(8 - inByte, left);
      const part = (this.bytes[this.bit >> 3] >> (8 - inByte - take)) & ((1 << take) - 1);
      value = value * 2 ** take + part;
      this.bit += take;
      left -= take;
    }
    return value;
  }

  private readSigned(count: number): number {
    const value = this.read(count);
    return value >= 2 ** (count - 1) ? value - 2 ** count : value;
  }
}

/** Adds what the predictor says to the residual that stands in its place. */
function restore(out: Int32Array, length: number, coefficients: readonly number[], shift: number): void {
  const order = coefficients.length;
  const scale = 2 ** shift;
  for (let i = order; i < length; i++) {
    // Doubles are exact here: 32 products of 15 and 33 bits stay under 2⁵³.
    let sum = 0;
    for (let k = 0; k < order; k++) sum += coefficients[k] * out[i - 1 - k];
    out[i] += shift === 0 ? sum : Math.floor(sum / scale);
  }
}

/** Makes left and right of what was stored: left/side, side/right or mid/side (section 4.2). */
function decorrelate(assignment: number, a: Int32Array, b: Int32Array, length: number): void {
  for (let i = 0; i < length; i++) {
    const [x, y] = [a[i], b[i]];
    if (assignment === 8) b[i] = x - y;
    else if (assignment === 9) a[i] = x + y;
    else {
      const mid = x * 2 + (y & 1);
      a[i] = (mid + y) / 2;
      b[i] = (mid - y) / 2;
    }
  }
}

const damaged = (what: string): AudioFileError => new AudioFileError('malformed', what);

const CRC8 = table(8, 0x07);
const CRC16 = table(16, 0x8005);

/** A table for a check sum of so many bits, most significant bit first, beginning with zero (sections 9.1.8, 9.3). */
function table(bits: number, polynomial: number): Uint16Array {
  const top = 1 << (bits - 1);
  const mask = 2 ** bits - 1;
  return Uint16Array.from({ length: 256 }, (_, byte) => {
    let value = byte << (bits - 8);
    for (let i = 0; i < 8; i++) value = ((value & top) !== 0 ? (value << 1) ^ polynomial : value << 1) & mask;
    return value;
  });
}

function crc8(bytes: Uint8Array, end: number): number {
  let crc = 0;
  for (let i = 0; i < end; i++) crc = CRC8[crc ^ bytes[i]];
  return crc;
}

function crc16(bytes: Uint8Array, end: number): number {
  let crc = 0;
  for (let i = 0; i < end; i++) crc = ((crc << 8) & 0xffff) ^ CRC16[(crc >> 8) ^ bytes[i]];
  return crc;
}
