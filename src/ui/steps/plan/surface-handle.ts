/** How large handles of surfaces are, pixels, and how far the arrow keys move them, fractions of the picture. */
export const SURFACE_HANDLE = {
  size: { grip: 11, knob: 4 },
  nudge: { step: 0.002, coarse: 10 },
};
