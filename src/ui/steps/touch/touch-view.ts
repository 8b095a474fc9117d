import type { PaintStroke } from '@/core/matte/pass';
import { removeTouch } from '@/core/scene/touch-commands';
import type { PlatePoint } from '@/core/geometry/camera';
import { TOUCH_ACTS, type TouchAct } from '@/core/touch/touch-schema';
import type { Slice } from '../../view/slice';

/** Parts of the step; one is open at a time. */
export const TOUCH_PARTS = ['light', 'drifts'] as const;
export type TouchPartName = (typeof TOUCH_PARTS)[number];

export interface TouchView {
  touchPart?: TouchPartName;
  /** The chosen drift. */
  drift?: string;
  /** The chosen touch, and the chosen stroke of it. */
  touch?: string;
  touchStroke?: number;
  /** What a touch does that begins with the next stroke. */
  touchNext: TouchAct;
  /** How the next stroke is laid on. */
  touchBrush: Omit<PaintStroke, 'path'>;
  /** Where the brush stands that keys move. */
  touchAt: PlatePoint;
}

/** What touches do, in words. */
export const ACT_TITLES: Record<TouchAct, string> = {
  surface: 'On surfaces',
  air: 'In the air',
  lift: 'Lift and hold',
};

export const FIRST_BRUSH: TouchView['touchBrush'] = {
  ...{ size: 0.03, soft: 0.9, flow: 0.04, strength: 1 },
  ...{ erase: false, pressure: 'flow' },
};

export const touchView: Slice<TouchView> = {
  initial: { touchPart: 'light', touchNext: 'surface', touchBrush: FIRST_BRUSH, touchAt: { u: 0.5, v: 0.5 } },
  escape: { touch: undefined, touchStroke: undefined, drift: undefined },
  // A stroke is one of its touch.
  also: (values) => ('touch' in values ? { touchStroke: undefined } : {}),
  deeds: ({ scene, session, set }) => [
    { label: 'Add smoke or mist', run: () => set({ step: 'touch', touchPart: 'drifts', drift: undefined }) },
    ...TOUCH_ACTS.map((touchNext) => ({
      label: `Touch by hand: ${ACT_TITLES[touchNext].toLowerCase()}`,
      run: () => set({ step: 'touch', touchPart: 'light', touch: undefined, touchNext }),
    })),
    ...scene.touches.flatMap(({ id, name }) => [
      { label: `Choose ${name}`, run: () => set({ step: 'touch', touchPart: 'light', touch: id }) },
      { label: `Remove ${name}`, run: () => session.scene.getState().run(removeTouch(id)) },
    ]),
  ],
};
