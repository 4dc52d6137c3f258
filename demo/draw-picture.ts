import { crc32, deflateSync } from 'node:zlib';
import { letterBytes } from '#core/image/byte-pieces';

/** A picture in shades of grey as PNG (ISO/IEC 15948): eight bits, no filter. */
export function greyPng(width: number, height: number, shade: (x: number, y: number) => number): Uint8Array {
  const rows = new Uint8Array((width + 1) * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) rows[y * (width + 1) + 1 + x] = Math.max(0, Math.min(255, Math.round(shade(x, y))));
  const header = new DataView(new ArrayBuffer(13));
  header.setUint32(0, width);
  header.setUint32(4, height);
  header.setUint8(8, 8);
  const signature = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];
  return new Uint8Array([
    ...signature,
    ...chunk('IHDR', new Uint8Array(header.buffer)),
    ...chunk('IDAT', deflateSync(rows)),
    ...chunk('IEND', new Uint8Array()),
  ]);
}

function chunk(type: string, body: Uint8Array): Uint8Array {
  const bytes = new Uint8Array(12 + body.length);
  const view = new DataView(bytes.buffer);
  view.setUint32(0, body.length);
  bytes.set(letterBytes(type), 4);
  bytes.set(body, 8);
  view.setUint32(8 + body.length, crc32(bytes.subarray(4, 8 + body.length)));
  return bytes;
}

const [WIDTH, HEIGHT] = [480, 360];

/** A microphone on a stand before a wall: drawn, so that the demo has something to look at. */
export function drawnMicrophone(tilt: number): Uint8Array {
  return greyPng(WIDTH, HEIGHT, (x, y) => {
    const wall = 214 - 0.12 * y - 14 * Math.abs(x / WIDTH - 0.4);
    const table = y > 300 ? 120 - 0.3 * (y - 300) : null;
    // Along the body, and across it.
    const [dx, dy] = [x - 240, y - 150];
    const [along, across] = [dy * Math.cos(tilt) - dx * Math.sin(tilt), dx * Math.cos(tilt) + dy * Math.sin(tilt)];
    const isGrille = Math.hypot(along + 60, across) < 46;
    const isBody = along > -40 && along < 110 && Math.abs(across) < 34;
    const isStand = y > 200 && Math.abs(x - 240) < 5;
    const isFoot = y > 306 && y < 318 && Math.abs(x - 240) < 80;
    if (isGrille) return (Math.floor(along / 5) + Math.floor(across / 5)) % 2 === 0 ? 70 : 110;
    if (isBody) return 52 + 46 * Math.exp(-(((across + 12) / 12) ** 2));
    if (isStand || isFoot) return 40;
    return table ?? wall;
  });
}

/** A box with a lid. */
export function drawnBox(): Uint8Array {
  return greyPng(WIDTH, HEIGHT, (x, y) => {
    const isFront = x > 130 && x < 350 && y > 150 && y < 290;
    const isLid = y > 110 && y <= 150 && x > 130 + (150 - y) / 2 && x < 350 + (150 - y) / 2;
    if (isLid) return 170;
    if (isFront) return y > 205 && y < 235 && x > 180 && x < 300 ? 220 : 138;
    return y > 280 ? 112 : 206 - 0.1 * y;
  });
}
