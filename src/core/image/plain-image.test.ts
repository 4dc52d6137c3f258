import { parse } from 'exifr';
import { decode, encode } from 'jpeg-js';
import { crc32, deflateSync } from 'node:zlib';
import { describe, expect, it } from 'vitest';
import { joined, letterBytes as letters, viewOf } from './byte-pieces';
import { plainImage } from './plain-image';

// Held against two libraries of the registry: jpeg-js decodes before and after, exifr reads what is left of the metadata.

const [WIDTH, HEIGHT] = [24, 16];

/** A small picture without anything beside it. */
function jpeg(): Uint8Array {
  const data = Buffer.alloc(WIDTH * HEIGHT * 4);
  for (let i = 0; i < data.length; i++) data[i] = i % 4 === 3 ? 255 : (i * 7) % 256;
  return new Uint8Array(encode({ data, width: WIDTH, height: HEIGHT }, 90).data);
}

const segment = (marker: number, body: Uint8Array): Uint8Array =>
  joined([new Uint8Array([0xff, marker, (body.length + 2) >> 8, (body.length + 2) & 0xff]), body]);

/** Exif as a camera writes it: orientation, and a position (Exif 2.3, 4.6.6). */
function exif(orientation: number): Uint8Array {
  const tiff = new Uint8Array(8 + 2 + 2 * 12 + 4 + 2 + 4 * 12 + 4 + 48);
  const view = viewOf(tiff);
  const entry = (at: number, tag: number, type: number, count: number, value: number) => {
    view.setUint16(at, tag);
    view.setUint16(at + 2, type);
    view.setUint32(at + 4, count);
    if (type === 3) view.setUint16(at + 8, value);
    else view.setUint32(at + 8, value);
  };
  view.setUint32(0, 0x4d4d002a);
  view.setUint32(4, 8);
  view.setUint16(8, 2);
  entry(10, 0x0112, 3, 1, orientation);
  const gps = 8 + 2 + 24 + 4;
  entry(22, 0x8825, 4, 1, gps);
  view.setUint16(gps, 4);
  const numbers = gps + 2 + 48 + 4;
  entry(gps + 2, 1, 2, 2, 0x4e000000);
  entry(gps + 14, 2, 5, 3, numbers);
  entry(gps + 26, 3, 2, 2, 0x45000000);
  entry(gps + 38, 4, 5, 3, numbers + 24);
  [52, 30, 0, 4, 15, 0].forEach((n, i) => {
    view.setUint32(numbers + 8 * i, n);
    view.setUint32(numbers + 8 * i + 4, 1);
  });
  return segment(0xe1, joined([letters('Exif\0\0'), tiff]));
}

/** The picture with all that phones write beside it. */
function fromCamera(orientation = 6): Uint8Array {
  const picture = jpeg();
  return joined([
    picture.subarray(0, 2),
    exif(orientation),
    segment(0xe1, letters('http://ns.example/xap/1.0/\0<x:xmpmeta>somewhere</x:xmpmeta>')),
    segment(0xed, letters('Photoshop 3.0\0somebody')),
    segment(0xfe, letters('a comment of somebody')),
    segment(0xe2, joined([letters('ICC_PROFILE\0'), new Uint8Array([1, 1, 9, 9])])),
    segment(0xe2, letters('MPF\0previews')),
    picture.subarray(2),
    letters('a film behind the picture, somewhere'),
  ]);
}

describe('a JPEG', () => {
  it('loses where and by whom it was taken, keeps every sample, its profile, and how it is turned', async () => {
    const camera = fromCamera();
    expect(await parse(Buffer.from(camera), { gps: true })).toMatchObject({ latitude: 52.5, longitude: 4.25 });
    const { bytes, ...rest } = plainImage(camera);
    expect(rest).toEqual({ format: 'jpeg', widthPx: WIDTH, heightPx: HEIGHT });
    const left: unknown = await parse(Buffer.from(bytes), { gps: true, xmp: true, iptc: true, translateValues: false });
    expect(left).toEqual({ Orientation: 6 });
    const text = Buffer.from(bytes).toString('latin1');
    expect(text).not.toMatch(/some|xmp|Photoshop|MPF/);
    expect(text).toContain('ICC_PROFILE');
    expect(decode(Buffer.from(bytes)).data).toEqual(decode(Buffer.from(jpeg())).data);
    // Doing it again changes nothing: the same picture has one hash.
    expect(plainImage(bytes).bytes).toEqual(bytes);
  });

  it('that is not turned, or says nothing of it, has no Exif at all', async () => {
    const upright = Buffer.from(plainImage(fromCamera(1)).bytes);
    expect(await parse(upright).catch(() => undefined)).toBeUndefined();
    expect(upright.toString('latin1')).not.toContain('Exif');
  });

  it('that is not whole is refused, wherever it ends', () => {
    const camera = fromCamera();
    const whole = plainImage(camera).bytes;
    for (let length = 2; length < whole.length; length++)
      expect(() => plainImage(whole.subarray(0, length)), String(length)).toThrow(/JPEG is (not whole|damaged)|says nothing/); // prettier-ignore
  });
});

describe('a PNG', () => {
  const chunk = (type: string, body: Uint8Array): Uint8Array => {
    const around = new Uint8Array(12 + body.length);
    const view = viewOf(around);
    view.setUint32(0, body.length);
    around.set(letters(type), 4);
    around.set(body, 8);
    view.setUint32(8 + body.length, crc32(around.subarray(4, 8 + body.length)));
    return around;
  };
  const header = new Uint8Array([0, 0, 0, 3, 0, 0, 0, 2, 8, 0, 0, 0, 0]);
  const samples = new Uint8Array(deflateSync(new Uint8Array(8)));
  const signature = letters('\u0089PNG\r\n\u001a\n');
  const bare = joined([signature, chunk('IHDR', header), chunk('gAMA', new Uint8Array(4)), chunk('IDAT', samples), chunk('IEND', new Uint8Array())]); // prettier-ignore
  const written = joined([
    signature, chunk('IHDR', header), chunk('tEXt', letters('Author\0somebody')), chunk('gAMA', new Uint8Array(4)), chunk('eXIf', letters('MM\0*')),
    chunk('IDAT', samples), chunk('iTXt', letters('XML:com.example.xmp\0')), chunk('tIME', new Uint8Array(7)), chunk('IEND', new Uint8Array()), letters('behind'),
  ]); // prettier-ignore

  it('loses texts, times and Exif, and what stands behind its end', () => {
    expect(plainImage(written)).toEqual({ format: 'png', bytes: bare, widthPx: 3, heightPx: 2 });
    expect(() => plainImage(bare.subarray(0, bare.length - 1))).toThrow(/PNG is not whole/);
  });
});

describe('a WebP file', () => {
  const chunk = (type: string, body: Uint8Array): Uint8Array => {
    const around = new Uint8Array(8 + body.length + (body.length % 2));
    around.set(letters(type));
    viewOf(around).setUint32(4, body.length, true);
    around.set(body, 8);
    return around;
  };
  const file = (...chunks: Uint8Array[]): Uint8Array => {
    const body = joined([letters('WEBP'), ...chunks]);
    const size = new Uint8Array(4);
    viewOf(size).setUint32(0, body.length, true);
    return joined([letters('RIFF'), size, body]);
  };
  const extended = (flags: number): Uint8Array => chunk('VP8X', new Uint8Array([flags, 0, 0, 0, 2, 0, 0, 1, 0, 0]));
  const picture = chunk('VP8L', new Uint8Array([0x2f, 2, 0x40, 0, 0]));

  it('loses Exif and XMP, and says so in its header', () => {
    const written = file(extended(0x2c), chunk('ICCP', letters('p')), picture, chunk('EXIF', letters('MM\0*here')), chunk('XMP ', letters('<x>'))); // prettier-ignore
    const bare = file(extended(0x20), chunk('ICCP', letters('p')), picture);
    expect(plainImage(written)).toEqual({ format: 'webp', bytes: bare, widthPx: 3, heightPx: 2 });
    expect(plainImage(file(picture))).toMatchObject({ widthPx: 3, heightPx: 2 });
    expect(() => plainImage(written.subarray(0, written.length - 3))).toThrow(/not whole/);
  });
});

it('refuses what is no picture, and says what to do with those of telephones', () => {
  expect(() => plainImage(letters('....ftypheic........'))).toThrow(/export it as JPEG/);
  expect(() => plainImage(letters('RIFF....WAVEfmt '))).toThrow(/JPEG, PNG and WebP are taken/);
  expect(() => plainImage(new Uint8Array())).toThrow(/no picture/);
});
