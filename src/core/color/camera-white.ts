/** Colour temperature for which the night's camera is balanced, kelvin. Ambient and gels are seen by it. */
export const CAMERA_WHITE = 5500;
