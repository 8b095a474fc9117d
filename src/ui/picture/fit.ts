/** A rectangle in CSS pixels. */
export interface Box {
  left: number;
  top: number;
  width: number;
  height: number;
}

const MARGIN = 4;

/** The largest box of a plate's shape in the middle of a view. */
export function fitBox(
  view: { width: number; height: number },
  plate: { width: number; height: number },
): Box {
  const scale = Math.max(
    0,
    Math.min((view.width - 2 * MARGIN) / plate.width, (view.height - 2 * MARGIN) / plate.height),
  );
  const width = Math.round(plate.width * scale);
  const height = Math.round(plate.height * scale);
  return {
    left: Math.round((view.width - width) / 2),
    top: Math.round((view.height - height) / 2),
    width,
    height,
  };
}
