'use client';

import { useEffect, useRef } from 'react';
import { placeOnSvg } from './place-on-svg';
import classes from './picture.module.css';

/** How large the brush is, under the pointer. `radius`: pixels of the picture. */
export function BrushCircle({ radius }: { radius: number }) {
  const circle = useRef<SVGCircleElement>(null);
  useEffect(() => {
    const svg = circle.current?.ownerSVGElement;
    if (!svg) return;
    const move = (event: PointerEvent) => {
      const { u, v } = placeOnSvg(svg, event);
      circle.current?.setAttribute('cx', String(u * svg.width.baseVal.value));
      circle.current?.setAttribute('cy', String(v * svg.height.baseVal.value));
      circle.current?.setAttribute('visibility', 'visible');
    };
    const hide = () => circle.current?.setAttribute('visibility', 'hidden');
    svg.addEventListener('pointermove', move);
    svg.addEventListener('pointerleave', hide);
    return () => {
      svg.removeEventListener('pointermove', move);
      svg.removeEventListener('pointerleave', hide);
    };
  }, []);
  return <circle ref={circle} className={classes.brush} r={radius} visibility="hidden" />;
}
