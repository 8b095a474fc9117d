import type { Pass } from './pass';

interface Passes {
  id: string;
  passes: readonly Pass[];
}

/** The mattes that a matte is directly made of. */
export const innerMattes = ({ passes }: Pick<Passes, 'passes'>): string[] =>
  passes.flatMap((pass) => (pass.kind === 'matte' ? [pass.matte] : []));

/** Whether one matte is made of another, through however many between them; every matte is made of itself. */
export function isMadeOf(mattes: readonly Passes[], id: string, of: string): boolean {
  const seen = new Set<string>();
  const look = (at: string): boolean => {
    if (at === of) return true;
    if (seen.has(at)) return false;
    seen.add(at);
    const matte = mattes.find((other) => other.id === at);
    return matte !== undefined && innerMattes(matte).some(look);
  };
  return look(id);
}

/** Whether some matte refers to itself, directly or through others. */
export const isCircular = (mattes: readonly Passes[]): boolean =>
  mattes.some((matte) => innerMattes(matte).some((inner) => isMadeOf(mattes, inner, matte.id)));
