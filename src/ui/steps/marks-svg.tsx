'use client';

import type { PropsWithChildren, RefObject, SVGAttributes } from 'react';
import { useView } from '../editor/editor-context';
import classes from '../picture/picture.module.css';
import { usePictureDrag } from '../picture/use-picture-drag';
import type { Stage } from './step';

interface MarksSvgProps extends PropsWithChildren {
  stage: Stage;
  /** What gestures on the picture do where no mark takes them; nothing where it is missing. */
  gestures?: SVGAttributes<SVGSVGElement>;
  /** Whether there are so many marks that most of them stay small. */
  many?: boolean;
  svg?: RefObject<SVGSVGElement | null>;
}

/** Where a step's marks are drawn, over the plate. */
export function MarksSvg({ stage: { box }, gestures, many, svg, children }: MarksSvgProps) {
  const step = useView((view) => view.step);
  const idle = usePictureDrag({ onDrag: () => {}, onEnd: () => {} });
  return (
    <svg
      ref={svg}
      className={classes.marks}
      width={box.width}
      height={box.height}
      data-testid="marks"
      data-step={step}
      data-many={many || undefined}
      {...(gestures ?? idle)}
    >
      {children}
    </svg>
  );
}
