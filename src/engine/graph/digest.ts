import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';

/** Longest text that names itself, characters. */
const PLAIN = 160;

/** Bytes of a hash that are kept: chance does not find two texts alike in 16. */
const BYTES = 16;

/** A short name of a text, the same for the same text: the text itself while it is short, else its SHA-256. */
export const digest = (text: string): string =>
  text.length <= PLAIN ? text : `#${bytesToHex(sha256(utf8ToBytes(text)).subarray(0, BYTES))}`;
