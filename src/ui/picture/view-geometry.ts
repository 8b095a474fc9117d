import { clamp } from '@/core/plane/clamp';
import { plateFromFrame, type Frame } from '@/core/frame/frame';
import type { PlatePoint } from '@/core/geometry/camera';
import type { Size } from '@/engine/sizes';
import { FITTED, type Look } from '../view/look';

/** A rectangle in CSS pixels, from the top left of the view. */
export interface Box extends Size {
  left: number;
  top: number;
}

/** Nearest and farthest look, device pixels a plate pixel. */
export const ZOOM = { least: 0.1, most: 8 } as const;

const MARGIN = 4;

/** Device pixels a plate pixel when the whole plate is fitted into the view. */
export function fitZoom(view: Size, plate: Size, density: number): number {
  const scale = Math.min((view.width - 2 * MARGIN) / plate.width, (view.height - 2 * MARGIN) / plate.height);
  return Math.max(0, scale) * density;
}

/** Where the whole plate lies. A plate larger than the view covers it; a smaller one sits in its middle. */
export function plateBox(view: Size, plate: Size, { zoom, center }: Look, density: number): Box {
  const scale = (zoom === 'fit' ? fitZoom(view, plate, density) : zoom) / density;
  const width = Math.round(plate.width * scale);
  const height = Math.round(plate.height * scale);
  const place = (size: number, room: number, middle: number) =>
    size <= room
      ? Math.round((room - size) / 2)
      : Math.round(clamp(room / 2 - middle * size, room - size, 0));
  return {
    left: place(width, view.width, center.u),
    top: place(height, view.height, center.v),
    width,
    height,
  };
}

/** The look after a zoom that leaves the plate's point under the pointer where it is. */
export function zoomAt(
  view: Size,
  plate: Size,
  look: Look,
  density: number,
  to: number,
  pointer: { x: number; y: number },
): Look {
  const box = plateBox(view, plate, look, density);
  const zoom = clamp(to, ZOOM.least, ZOOM.most);
  if (zoom <= fitZoom(view, plate, density)) return FITTED;
  const [width, height] = [(plate.width * zoom) / density, (plate.height * zoom) / density];
  const u = (pointer.x - box.left) / box.width;
  const v = (pointer.y - box.top) / box.height;
  return {
    zoom,
    center: { u: u + (view.width / 2 - pointer.x) / width, v: v + (view.height / 2 - pointer.y) / height },
  };
}

/** The look after a drag of the picture by some CSS pixels. */
export function panBy(
  view: Size,
  plate: Size,
  look: Look,
  density: number,
  by: { x: number; y: number },
): Look {
  if (look.zoom === 'fit') return look;
  const box = plateBox(view, plate, look, density);
  const middle = (size: number, room: number, start: number) => (room / 2 - start) / size;
  return {
    zoom: look.zoom,
    center: {
      u: middle(box.width, view.width, box.left + by.x),
      v: middle(box.height, view.height, box.top + by.y),
    },
  };
}

/** The part of the plate in view, fractions of its width and height. */
export function visiblePart(view: Size, box: Box): Box {
  const cut = (start: number, size: number, room: number) => {
    const from = clamp(-start / size, 0, 1);
    return { from, part: clamp((room - start) / size, 0, 1) - from };
  };
  const across = cut(box.left, box.width, view.width);
  const down = cut(box.top, box.height, view.height);
  return { left: across.from, top: down.from, width: across.part, height: down.part };
}

/** Where the whole plate lies against the box of its frame, before it is turned about the frame's middle. */
export function plateAround(box: Size, frame: Frame): Box {
  const width = box.width / frame.width;
  const height = box.height / frame.height;
  return {
    left: box.width / 2 - frame.u * width,
    top: box.height / 2 - frame.v * height,
    width,
    height,
  };
}

/** The place of the plate at a place of the frame's box in CSS pixels from its top left. */
export function placeInBox(
  box: Size,
  frame: Frame,
  aspect: number,
  { x, y }: { x: number; y: number },
): PlatePoint {
  return plateFromFrame(frame, aspect, { u: x / box.width, v: y / box.height });
}
