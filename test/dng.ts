/** XYZ (D65) to linear sRGB, in ten-thousandths: a made-up camera that sees in sRGB. */
const COLOR_MATRIX = [32406, -15372, -4986, -9689, 18758, 415, 557, -2040, 10570];

const SHORT = 3;
const LONG = 4;
const RATIONAL = 5;
const SIGNED_RATIONAL = 10;

type Tag = [id: number, type: number, values: number[] | string];

/**
 * A camera's raw file as a DNG (Adobe DNG 1.4, made up): an uncompressed Bayer mosaic of a flat colour, without any
 * thumbnail. Colours are linear, 0 to 1.
 */
export function flatDng(
  width: number,
  height: number,
  at: (x: number, y: number) => readonly [r: number, g: number, b: number],
  orientation = 1,
): Uint8Array {
  const mosaic = Buffer.alloc(2 * width * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const channel = (x & 1) + (y & 1);
      mosaic.writeUInt16LE(Math.round(65535 * at(x, y)[channel]), 2 * (y * width + x));
    }
  }
  const tags: Tag[] = [
    [254, LONG, [0]],
    [256, LONG, [width]],
    [257, LONG, [height]],
    [258, SHORT, [16]],
    [259, SHORT, [1]],
    [262, SHORT, [32803]],
    [271, 2, 'Quillbrook'],
    [272, 2, 'Box camera'],
    [273, LONG, [8]],
    [274, SHORT, [orientation]],
    [277, SHORT, [1]],
    [278, LONG, [height]],
    [279, LONG, [mosaic.length]],
    [284, SHORT, [1]],
    [33421, SHORT, [2, 2]],
    [33422, 1, [0, 1, 1, 2]],
    [50706, 1, [1, 4, 0, 0]],
    [50708, 2, 'Quillbrook Box camera'],
    [50714, LONG, [0]],
    [50717, LONG, [65535]],
    [50721, SIGNED_RATIONAL, COLOR_MATRIX.flatMap((value) => [value, 10000])],
    [50728, RATIONAL, [1, 1, 1, 1, 1, 1]],
    [50778, SHORT, [21]],
  ];
  return tiff(mosaic, tags);
}

function tiff(data: Buffer, tags: Tag[]): Buffer {
  const sizes: Record<number, number> = { 1: 1, 2: 1, 3: 2, 4: 4, 5: 4, 10: 4 };
  const start = 8 + data.length;
  const directory = Buffer.alloc(2 + 12 * tags.length + 4);
  directory.writeUInt16LE(tags.length, 0);
  const extras: Buffer[] = [];
  let extraAt = start + directory.length;
  tags.forEach(([id, type, values], i) => {
    const bytes =
      typeof values === 'string'
        ? Buffer.from(`${values}\0`, 'latin1')
        : Buffer.alloc(values.length * sizes[type]);
    if (typeof values !== 'string') {
      values.forEach((value, k) => {
        if (sizes[type] === 1) bytes.writeUInt8(value, k);
        else if (sizes[type] === 2) bytes.writeUInt16LE(value, 2 * k);
        else if (value < 0) bytes.writeInt32LE(value, 4 * k);
        else bytes.writeUInt32LE(value, 4 * k);
      });
    }
    const pairs = type === RATIONAL || type === SIGNED_RATIONAL ? 2 : 1;
    const at = 2 + 12 * i;
    directory.writeUInt16LE(id, at);
    directory.writeUInt16LE(type, at + 2);
    directory.writeUInt32LE(bytes.length / sizes[type] / pairs, at + 4);
    if (bytes.length <= 4) bytes.copy(directory, at + 8);
    else {
      directory.writeUInt32LE(extraAt, at + 8);
      const padded = Buffer.alloc(bytes.length + (bytes.length & 1));
      bytes.copy(padded);
      extras.push(padded);
      extraAt += padded.length;
    }
  });
  const head = Buffer.from([0x49, 0x49, 42, 0, 0, 0, 0, 0]);
  head.writeUInt32LE(start, 4);
  return Buffer.concat([head, data, directory, ...extras]);
}
