/** A fault that a person is told about. `message` says what is wrong and what to do. */
export class AppError extends Error {
  override name = 'AppError';
  constructor(
    /** HTTP status. */
    readonly status: number,
    /** For the interface to tell faults apart. */
    readonly code: string,
    message: string,
    /** What else the interface needs. */
    readonly detail?: Record<string, unknown>,
  ) {
    super(message);
  }
}

/** Errors of the file system that mean a full disk. */
export function diskFull(error: unknown): boolean {
  const code = (error as { code?: string } | null)?.code;
  return code === 'ENOSPC' || code === 'EDQUOT' || code === 'SQLITE_FULL';
}

/** What is told of a full disk. */
export const fullDisk = (): AppError =>
  new AppError(507, 'disk-full', 'The disk is full. Free some space and try again.');
