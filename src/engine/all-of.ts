/** What all of several pieces of work come to. Waits for each even when one fails, so that none goes on unseen; then throws. */
export async function allOf<Work extends readonly unknown[]>(
  work: Work,
): Promise<{ -readonly [K in keyof Work]: Awaited<Work[K]> }> {
  const failed = (await Promise.allSettled(work)).find((result) => result.status === 'rejected');
  if (failed) throw failed.reason;
  return Promise.all(work);
}
