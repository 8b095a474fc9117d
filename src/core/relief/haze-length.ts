/** Height of the top of the haze over the eye, and the farthest way through it, metres. */
export const HAZE = { top: 120, farthest: 4000 } as const;

/** One over the way through haze toward the sky, per metre. @param rise of the ray's unit vector */
export const perHazeLength = (rise: number): number => Math.max(1 / HAZE.farthest, rise / HAZE.top);

/** How long the way through haze is toward the sky, metres. @param rise of the ray's unit vector */
export const hazeLength = (rise: number): number => 1 / perHazeLength(rise);
