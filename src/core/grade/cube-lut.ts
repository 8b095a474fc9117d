/** A colour look-up table: what `.cube` files hold. */
export interface CubeLut {
  /** 1: three curves. 3: a cube. */
  dimensions: 1 | 3;
  /** Entries along one side. */
  size: number;
  domainMin: [number, number, number];
  domainMax: [number, number, number];
  /** Interleaved RGB; in a cube red runs fastest. */
  data: Float32Array;
  title: string;
}

/** A look-up table that cannot be read. `line` counts from 1. */
export class CubeFormatError extends Error {
  override name = 'CubeFormatError';
  constructor(
    readonly line: number,
    reason: string,
  ) {
    super(`Line ${line}: ${reason}`);
  }
}

const MOST = { 1: 65536, 3: 65 } as const;

const NUMBER = /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i;

/**
 * Reads the text of a `.cube` file (Cube LUT Specification 1.0): comments, TITLE, LUT_1D_SIZE or LUT_3D_SIZE, DOMAIN_MIN
 * and DOMAIN_MAX, then one line of three numbers an entry. Keywords that it does not know are passed over. Throws
 * CubeFormatError with the line.
 */
export function parseCube(text: string): CubeLut {
  const lut: Pick<CubeLut, 'domainMin' | 'domainMax' | 'title'> = {
    domainMin: [0, 0, 0],
    domainMax: [1, 1, 1],
    title: '',
  };
  let dimensions: 1 | 3 | undefined;
  let size = 0;
  let data = new Float32Array(0);
  let filled = 0;
  const lines = text.replace(/^\uFEFF/, '').split(/\r\n|\n|\r/);

  lines.forEach((raw, index) => {
    const fail = (reason: string): never => {
      throw new CubeFormatError(index + 1, reason);
    };
    const line = raw.trim();
    if (line === '' || line.startsWith('#')) return;
    const [head, ...rest] = line.split(/\s+/);
    const triple = (words: string[]): [number, number, number] => {
      if (words.length !== 3 || !words.every((word) => NUMBER.test(word)))
        fail(`three numbers are needed here, not “${line.slice(0, 40)}”.`);
      return [Number(words[0]), Number(words[1]), Number(words[2])];
    };
    if (filled === 0 && /^[A-Z][A-Z0-9_]*$/.test(head)) {
      if (head === 'TITLE') lut.title = line.slice(5).trim().replace(/^"|"$/g, '').slice(0, 80);
      else if (head === 'DOMAIN_MIN') lut.domainMin = triple(rest);
      else if (head === 'DOMAIN_MAX') lut.domainMax = triple(rest);
      else if (head === 'LUT_1D_SIZE' || head === 'LUT_3D_SIZE') {
        if (dimensions) fail('the size is given a second time.');
        dimensions = head === 'LUT_1D_SIZE' ? 1 : 3;
        size = Number(rest[0]);
        if (!Number.isInteger(size) || size < 2 || size > MOST[dimensions])
          fail(`the size must be a whole number from 2 to ${MOST[dimensions]}, not “${rest[0] ?? ''}”.`);
        data = new Float32Array(3 * size ** dimensions);
      }
      return;
    }
    if (!dimensions) fail('numbers come before LUT_1D_SIZE or LUT_3D_SIZE.');
    if (filled >= data.length)
      fail(`there are more than the ${data.length / 3} entries that the size asks for.`);
    data.set(triple([head, ...rest]), filled);
    filled += 3;
  });

  const failAtEnd = (reason: string): never => {
    throw new CubeFormatError(lines.length, reason);
  };
  if (!dimensions) return failAtEnd('the file names no LUT_1D_SIZE or LUT_3D_SIZE.');
  if (filled < data.length) failAtEnd(`the file ends after ${filled / 3} of ${data.length / 3} entries.`);
  if (lut.domainMin.some((low, c) => !(low < lut.domainMax[c])))
    failAtEnd('DOMAIN_MIN is not under DOMAIN_MAX.');
  return { ...lut, dimensions, size, data };
}
