/** Colorants of made-up profiles, XYZ relative to D50, red, green, blue. */
export const COLORANTS = {
  'wide red': [
    [0.51512, 0.2412, -0.00105],
    [0.29198, 0.69225, 0.04189],
    [0.1571, 0.06657, 0.78407],
  ],
  'wide green': [
    [0.60974, 0.31111, 0.01947],
    [0.20528, 0.62567, 0.06087],
    [0.14919, 0.06322, 0.74457],
  ],
} as const;

/** An RGB display profile of three colorants and one gamma (ICC.1:2001-04, matrix and curves). */
export function matrixProfile(
  name: string,
  colorants: readonly (readonly number[])[],
  gamma: number,
): Buffer {
  const fixed = (value: number) => {
    const bytes = Buffer.alloc(4);
    bytes.writeInt32BE(Math.round(value * 65536));
    return bytes;
  };
  const head = (type: string) => Buffer.concat([Buffer.from(type, 'latin1'), Buffer.alloc(4)]);
  const xyz = (values: readonly number[]) => Buffer.concat([head('XYZ '), ...values.map(fixed)]);
  const curve = Buffer.concat([head('curv'), Buffer.from([0, 0, 0, 1]), Buffer.alloc(2)]);
  curve.writeUInt16BE(Math.round(gamma * 256), 12);
  const length = Buffer.alloc(4);
  length.writeUInt32BE(name.length + 1);
  const desc = Buffer.concat([head('desc'), length, Buffer.from(`${name}\0`, 'latin1'), Buffer.alloc(78)]);
  const tags: [string, Buffer][] = [
    ['desc', desc],
    ['cprt', Buffer.concat([head('text'), Buffer.from('none\0', 'latin1')])],
    ['wtpt', xyz([0.9642, 1, 0.82491])],
    ['rXYZ', xyz(colorants[0])],
    ['gXYZ', xyz(colorants[1])],
    ['bXYZ', xyz(colorants[2])],
    ['rTRC', curve],
    ['gTRC', curve],
    ['bTRC', curve],
  ];
  const table = Buffer.alloc(4 + 12 * tags.length);
  table.writeUInt32BE(tags.length);
  let at = 128 + table.length;
  const bodies = tags.map(([id, body], i) => {
    table.write(id, 4 + 12 * i, 'latin1');
    table.writeUInt32BE(at, 8 + 12 * i);
    table.writeUInt32BE(body.length, 12 + 12 * i);
    const padded = Buffer.concat([body, Buffer.alloc(-body.length & 3)]);
    at += padded.length;
    return padded;
  });
  const header = Buffer.alloc(128);
  header.writeUInt32BE(at, 0);
  header.writeUInt32BE(0x02400000, 8);
  header.write('mntrRGB XYZ ', 12, 'latin1');
  header.write('acsp', 36, 'latin1');
  Buffer.concat([0.9642, 1, 0.82491].map(fixed)).copy(header, 68);
  return Buffer.concat([header, table, ...bodies]);
}

/** A PNG with a profile: its chunk is put in after the header. */
export async function pngWithProfile(png: Buffer, profile: Buffer): Promise<Buffer> {
  const { deflateSync } = await import('node:zlib');
  const data = Buffer.concat([Buffer.from('made up\0\0', 'latin1'), deflateSync(profile)]);
  return Buffer.concat([png.subarray(0, 33), pngChunk('iCCP', data), png.subarray(33)]);
}

/** A chunk of a PNG with its length and its CRC. */
export function pngChunk(type: string, data: Buffer): Buffer {
  const body = Buffer.concat([Buffer.from(type, 'latin1'), data]);
  const out = Buffer.alloc(body.length + 8);
  out.writeUInt32BE(data.length, 0);
  body.copy(out, 4);
  out.writeUInt32BE(crc32(body), body.length + 4);
  return out;
}

function crc32(bytes: Buffer): number {
  let crc = 0xffffffff;
  for (const byte of bytes) {
    crc ^= byte;
    for (let k = 0; k < 8; k++) crc = crc & 1 ? 0xedb88320 ^ (crc >>> 1) : crc >>> 1;
  }
  return (crc ^ 0xffffffff) >>> 0;
}

/**
 * An RGB profile of tables (ICC.1:2001-04, lut16Type, two grid points a side): its channels do not add up, for together they give
 * only `dimmed` of what they give alone.
 */
export function tablesProfile(dimmed: number): Buffer {
  const u16 = (values: readonly number[]) => {
    const bytes = Buffer.alloc(2 * values.length);
    values.forEach((value, i) => bytes.writeUInt16BE(Math.round(value), 2 * i));
    return bytes;
  };
  const matrix = [1, 0, 0, 0, 1, 0, 0, 0, 1].map((value) => {
    const bytes = Buffer.alloc(4);
    bytes.writeInt32BE(value * 65536);
    return bytes;
  });
  const corners = Array.from({ length: 8 }, (_, i) => [(i >> 2) & 1, (i >> 1) & 1, i & 1]);
  const grid = corners.flatMap((on) => {
    const share = on.reduce((sum, channel) => sum + channel, 0) > 1 ? dimmed : 1;
    return [0, 1, 2].map((axis) =>
      on.reduce((sum, channel, c) => sum + channel * COLORANTS['wide red'][c][axis] * share * 32768, 0),
    );
  });
  const ramps = [0, 65535, 0, 65535, 0, 65535];
  const table = Buffer.concat([
    Buffer.from('mft2\0\0\0\0\x03\x03\x02\0', 'latin1'),
    ...matrix,
    u16([2, 2, ...ramps, ...grid.map((value) => Math.max(0, value)), ...ramps]),
  ]);
  const base = matrixProfile('tables', COLORANTS['wide red'], 1);
  // The tag of red's colorant becomes one of tables that lie behind all else.
  const at = 128 + 4 + 12 * 3;
  const out = Buffer.concat([base, table]);
  out.write('A2B0', at, 'latin1');
  out.writeUInt32BE(base.length, at + 4);
  out.writeUInt32BE(table.length, at + 8);
  out.writeUInt32BE(out.length, 0);
  return out;
}
