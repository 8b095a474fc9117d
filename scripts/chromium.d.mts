export const findChromium: () => string | undefined;
