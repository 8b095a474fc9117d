/** The reason with which outdated work is dropped. */
export function abortError(): DOMException {
  return new DOMException('The work is outdated.', 'AbortError');
}

export function isAbort(error: unknown): boolean {
  return error instanceof DOMException && error.name === 'AbortError';
}
