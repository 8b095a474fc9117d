/**
 * The length of a way by its parts. `Math.hypot` guards against numbers that no picture has, and takes twenty times as long and more:
 * too long for every pixel.
 */
export const hypot = (x: number, y: number, z = 0): number => Math.sqrt(x * x + y * y + z * z);
