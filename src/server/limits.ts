/** What the server takes at most. */
export const LIMITS = {
  uploadBytes: 256 * 1024 * 1024,
  coverageBytes: 8 * 1024 * 1024,
  lutBytes: 24 * 1024 * 1024,
  platePixels: 100e6,
  /** Shortest side of a plate, pixels. */
  plateSide: 64,
  bodyBytes: 4 * 1024 * 1024,
  entriesPerRequest: 200,
  /** Entries of the log that an opened scene brings along. */
  logEntries: 500,
  /** A region of a plate that is asked for over the wire. */
  regionSide: 40000,
  regionPixels: 8e6,
} as const;
