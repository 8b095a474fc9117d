import { useEffect, useRef, type RefObject } from 'react';

/**
 * Calls back at each turn of the wheel over an element, with the factor that it stands for; such turns do not reach the picture.
 *
 * @param counts which turns are meant; all, where it is missing
 */
export function useWheel(
  ref: RefObject<Element | null>,
  step: number,
  onTurn: (factor: number) => void,
  counts?: (event: WheelEvent) => boolean,
): void {
  const latest = useRef({ onTurn, counts });
  useEffect(() => {
    latest.current = { onTurn, counts };
  });
  useEffect(() => {
    const element = ref.current!;
    const turn = (event: Event) => {
      const wheel = event as WheelEvent;
      if (latest.current.counts?.(wheel) === false) return;
      wheel.preventDefault();
      wheel.stopPropagation();
      latest.current.onTurn(wheel.deltaY < 0 ? step : 1 / step);
    };
    element.addEventListener('wheel', turn, { passive: false });
    return () => element.removeEventListener('wheel', turn);
  }, [ref, step]);
}
