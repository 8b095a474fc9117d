import { execFileSync, spawnSync } from 'node:child_process';

/* Programs that no one here wrote: they read what was written. `npm test` installs them where it can. */

/** Whether a program is on this machine. */
export const hasProgram = (program: string): boolean => spawnSync('which', [program]).status === 0;

/** What a file says of itself, by names: numbers as numbers. */
export function tagsOf(path: string): Record<string, unknown> {
  const told = execFileSync('exiftool', ['-json', '-n', path], { encoding: 'utf8' });
  const [tags] = JSON.parse(told) as Record<string, unknown>[];
  return tags;
}

/** Codes of 16 bits of a picture, RGB interleaved. `more`: what is done with it first. */
export function codesOf(path: string, ...more: string[]): Uint16Array {
  const args = [path, ...more, '-depth', '16', '-endian', 'LSB', 'rgb:-'];
  const bytes = execFileSync('convert-im6.q16', args, { maxBuffer: 2 ** 28 });
  return new Uint16Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));
}

/** Names, types and compression of an OpenEXR file's channels. */
export const exrHeader = (path: string): string => execFileSync('exrheader', [path], { encoding: 'utf8' });
