/**
 * A rectangle of a picture's pixel grid. `fullWidth` and `fullHeight` are the size of the whole picture at this
 * scale; `left`, `top`, `width` and `height` say which part of it the buffers hold. All in whole pixels.
 */
export interface Region {
  fullWidth: number;
  fullHeight: number;
  left: number;
  top: number;
  width: number;
  height: number;
}

/** The region that covers a whole picture. */
export function wholeRegion(width: number, height: number): Region {
  return { fullWidth: width, fullHeight: height, left: 0, top: 0, width, height };
}

/** Some rows of a region as a region of its own. `first` counts from the region's own top. */
export function rowsOf(region: Region, first: number, rows: number): Region {
  return { ...region, top: region.top + first, height: rows };
}

/** A region as a text that names it. */
export const regionKey = (region: Region): string => Object.values(region).join();
