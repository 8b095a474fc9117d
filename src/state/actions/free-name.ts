/** A name with the lowest number that none of the items has yet. */
export function freeName(stem: string, items: { name: string }[]): string {
  const taken = new Set(items.map(({ name }) => name));
  let n = 1;
  while (taken.has(`${stem} ${n}`)) n++;
  return `${stem} ${n}`;
}

/** A name from that of a file, without its ending. */
export const nameOfFile = (fileName: string, longest: number): string =>
  fileName
    .replace(/\.[^.]*$/, '')
    .trim()
    .slice(0, longest);

/** What a fixture's copies are called, before their numbers. */
export const stemOf = ({ name }: { name: string }): string => name.replace(/ \d+$/, '');
