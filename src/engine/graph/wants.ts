import { Want, type Wants } from './stage-spec';

/** All single wants of a tree, in its order. */
export function wantsIn(wants: Wants): Want[] {
  if (wants === undefined) return [];
  if (wants instanceof Want) return [wants];
  return (Array.isArray(wants) ? wants : Object.values(wants)).flatMap((one: Wants) => wantsIn(one));
}

/** A tree of wants with each replaced. */
export function mapWants<T>(wants: Wants, replace: (want: Want) => T): unknown {
  if (wants === undefined) return undefined;
  if (wants instanceof Want) return replace(wants);
  if (Array.isArray(wants)) return wants.map((one: Wants) => mapWants(one, replace));
  return Object.fromEntries(Object.entries(wants).map(([name, one]) => [name, mapWants(one, replace)]));
}
