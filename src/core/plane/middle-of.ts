/** The mean of some places, fractions of a picture's width and height. There is at least one. */
export function middleOf(places: readonly { u: number; v: number }[]): { u: number; v: number } {
  const sum = (axis: 'u' | 'v') => places.reduce((all, place) => all + place[axis], 0);
  return { u: sum('u') / places.length, v: sum('v') / places.length };
}
