/** Reflectance that the plate's median luminance stands for. */
export const MIDDLE_GREY = 0.18;
