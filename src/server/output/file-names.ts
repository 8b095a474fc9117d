/** A name as part of a file name: plain letters, digits and dashes. */
export function slug(name: string, otherwise: string): string {
  const stem = name
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '');
  return stem || otherwise;
}

/** The name of a scene's files, without their ending. */
export const fileStem = (title: string): string => `${slug(title, 'scene')}-night`;

/** File names of some stems: those that are alike are numbered. */
export function numbered(stems: readonly string[], ending: string): string[] {
  const seen = new Map<string, number>();
  return stems.map((stem) => {
    const count = (seen.get(stem) ?? 0) + 1;
    seen.set(stem, count);
    return count === 1 ? `${stem}.${ending}` : `${stem}-${count}.${ending}`;
  });
}
