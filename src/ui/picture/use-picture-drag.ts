import { useRef, type PointerEvent } from 'react';
import type { PlatePoint } from '@/core/geometry/camera';
import { placeOnSvg } from './place-on-svg';

/** Movement in CSS pixels from which a press is a drag and not a click. */
const SLACK = 4;

interface PictureDrag {
  onStart?: () => void;
  /** How far the pointer has come since it was pressed, fractions of the plate, where it is, and where it was pressed. */
  onDrag: (moved: PlatePoint, at: PlatePoint, event: PointerEvent, from: PlatePoint) => void;
  onEnd: () => void;
  /** Pressed and let go without a drag. */
  onClick?: (at: PlatePoint, event: PointerEvent) => void;
}

/** Pointer handlers for something in the picture that is dragged. The picture is the nearest `svg`. */
export function usePictureDrag({ onStart, onDrag, onEnd, onClick }: PictureDrag) {
  const press = useRef<{ from: PlatePoint; x: number; y: number; dragging: boolean } | null>(null);

  const place = (event: PointerEvent) => placeOnSvg(event.currentTarget as SVGGraphicsElement, event);

  return {
    onPointerDown(event: PointerEvent) {
      if (event.button !== 0) return;
      event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      press.current = { from: place(event), x: event.clientX, y: event.clientY, dragging: false };
    },
    onPointerMove(event: PointerEvent) {
      const now = press.current;
      if (!now) return;
      if (!now.dragging && Math.hypot(event.clientX - now.x, event.clientY - now.y) < SLACK) return;
      if (!now.dragging) onStart?.();
      now.dragging = true;
      const at = place(event);
      onDrag({ u: at.u - now.from.u, v: at.v - now.from.v }, at, event, now.from);
    },
    onPointerUp(event: PointerEvent) {
      const now = press.current;
      press.current = null;
      if (now?.dragging) onEnd();
      else if (now) onClick?.(now.from, event);
    },
    onPointerCancel() {
      if (press.current?.dragging) onEnd();
      press.current = null;
    },
  };
}
