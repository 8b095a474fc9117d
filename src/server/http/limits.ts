import { JSON_DEPTH } from '@/core/scene/parse-json';

const MEBIBYTE = 2 ** 20;

/** What the server takes at most, and keeps at most. `docs/reliability.md` has them as a table, which a test holds to these. */
export const LIMITS = {
  /** A photo or a scene file, bytes. */
  uploadBytes: 256 * MEBIBYTE,
  /** What an edge brush found, bytes. */
  coverageBytes: 8 * MEBIBYTE,
  /** A look-up table, bytes. */
  lutBytes: 24 * MEBIBYTE,
  /** Pixels of a plate. */
  platePixels: 100e6,
  /** Shortest side of a plate, pixels. */
  plateSide: 64,
  /** A request that is JSON, bytes: a save may carry a whole document, and what undoes it. */
  bodyBytes: 40 * MEBIBYTE,
  /** A scene's document, bytes of JSON. */
  documentBytes: 16 * MEBIBYTE,
  /** How deep JSON may be nested. */
  jsonDepth: JSON_DEPTH,
  /** Entries of a scene file, whatever they are. */
  sceneFileEntries: 4000,
  /** How many times its packed size an entry of a scene file may have. */
  sceneFileRatio: 250,
  /** Entries of the log in one save. */
  entriesPerRequest: 200,
  /** Entries of the log that an opened scene brings along. */
  logEntries: 500,
  /** A region of a plate that is asked for over the wire: its side and its pixels. */
  regionSide: 40000,
  regionPixels: 8e6,
  /** Decoding a photo or unpacking a scene file, seconds. */
  decodeSeconds: 180,
  /** Outputs that wait or run; one more is refused. */
  outputs: 50,
  /** Smaller copies of plates that are kept, bytes; the longest unused go first. */
  derivedBytes: 2048 * MEBIBYTE,
  /** Thumbnails that are kept, bytes. */
  thumbnailBytes: 256 * MEBIBYTE,
  /** Results of stages that are kept, bytes. */
  resultBytes: 256 * MEBIBYTE,
  /** How long what nothing refers to stays after its last use, minutes. */
  restMinutes: 60,
  /** How long what a window took in, and has not saved yet, stays; days. */
  offerDays: 14,
} as const;
