import { useEffect, useRef, type PointerEvent, type RefObject } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import type { Size } from '@/engine/sizes';
import { FITTED, type Look } from '../view/look';
import { EVERYWHERE, UNLESS_PRESSED } from '../editor/key-options';
import { fitZoom, panBy, zoomAt } from './view-geometry';

interface LookGestures {
  view: RefObject<HTMLElement | null>;
  /** Size of one pane of the view. */
  pane: Size;
  plate: Size;
  density: number;
  look: Look;
  onLook: (look: Look) => void;
}

const WHEEL_STEP = 1.2;

/**
 * Zoom by wheel to the pointer, or by pinch; pan by trackpad, by the middle button, or by dragging while the space bar is
 * held; F fits, 1, 2 and 3 show 100, 200 and 300 per cent. Returns handlers for the view, to be run before those of the picture.
 */
export function useLookGestures(options: LookGestures) {
  const latest = useRef(options);
  useEffect(() => {
    latest.current = options;
  });
  const pan = (x: number, y: number) => {
    const { pane, plate, look, density, onLook } = latest.current;
    onLook(panBy(pane, plate, look, density, { x, y }));
  };
  const zoomTo = (zoom: number, pointer?: { x: number; y: number }) => {
    const { pane, plate, look, density, onLook } = latest.current;
    onLook(zoomAt(pane, plate, look, density, zoom, pointer ?? { x: pane.width / 2, y: pane.height / 2 }));
  };

  useEffect(() => {
    const element = latest.current.view.current!;
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      if (event.deltaX !== 0 && !event.ctrlKey) return pan(-event.deltaX, -event.deltaY);
      const { pane, plate, look, density } = latest.current;
      const box = element.getBoundingClientRect();
      const now = look.zoom === 'fit' ? fitZoom(pane, plate, density) : look.zoom;
      const pointer = { x: (event.clientX - box.left) % pane.width, y: event.clientY - box.top };
      zoomTo(now * wheelFactor(event), pointer);
    };
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => element.removeEventListener('wheel', onWheel);
  }, []);

  useHotkeys('f', () => latest.current.onLook(FITTED), EVERYWHERE);
  useHotkeys('1,2,3', (event) => zoomTo(Number(event.key)), EVERYWHERE);
  return usePanDrag(options.view, pan);
}

/** How many times closer a turn of the wheel brings the picture; a pinch comes as a turn with Ctrl. */
function wheelFactor({ ctrlKey, deltaY }: WheelEvent): number {
  if (ctrlKey) return Math.exp(-deltaY / 100);
  return deltaY < 0 ? WHEEL_STEP : 1 / WHEEL_STEP;
}

/** Panning by the middle button, or by dragging while the space bar is held. */
function usePanDrag(view: LookGestures['view'], pan: (x: number, y: number) => void) {
  const spaceHeld = useRef(false);
  const drag = useRef<{ x: number; y: number } | null>(null);
  useHotkeys(
    'space',
    (event) => {
      spaceHeld.current = event.type === 'keydown';
      view.current?.toggleAttribute('data-panning', spaceHeld.current);
    },
    { ...UNLESS_PRESSED, keydown: true, keyup: true, preventDefault: true },
  );

  return {
    onPointerDownCapture(event: PointerEvent) {
      if (!spaceHeld.current && event.button !== 1) return;
      event.stopPropagation();
      event.preventDefault();
      event.currentTarget.setPointerCapture(event.pointerId);
      drag.current = { x: event.clientX, y: event.clientY };
    },
    onPointerMoveCapture(event: PointerEvent) {
      if (!drag.current) return;
      event.stopPropagation();
      pan(event.clientX - drag.current.x, event.clientY - drag.current.y);
      drag.current = { x: event.clientX, y: event.clientY };
    },
    onPointerUpCapture(event: PointerEvent) {
      if (!drag.current) return;
      event.stopPropagation();
      drag.current = null;
    },
  };
}
