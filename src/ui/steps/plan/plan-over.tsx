'use client';

import type { PlatePoint } from '@/core/geometry/camera';
import { useView } from '../../editor/editor-context';
import { PlanProbe } from './plan-probe';
import { PopUpView } from './pop-up-view';
import type { Stage } from '../step';

/** How far off the place under the pointer lies, and the plan as a pop-up. */
export function PlanOver({ day, pointer }: Stage & { pointer: PlatePoint | undefined }) {
  const popUp = useView((view) => view.popUp);
  return (
    <>
      {pointer && <PlanProbe at={pointer} />}
      {popUp && <PopUpView day={day} />}
    </>
  );
}
