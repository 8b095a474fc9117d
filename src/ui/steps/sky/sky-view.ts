import { setSky } from '@/core/scene/sky-commands';
import type { Slice } from '../../view/slice';

/** Parts of the step; one is open at a time. */
export const SKY_PARTS = ['twilight', 'clouds', 'picture', 'stars', 'moon', 'storm'] as const;
export type SkyPartName = (typeof SKY_PARTS)[number];

export interface SkyView {
  skyPart?: SkyPartName;
  /** A picture of a sky is shown half through while it is placed. */
  placingSky: boolean;
}

/** How much of a picture of a sky shows while it is placed: the plate's own sky is seen through it. */
const PLACING = 0.5;

export const skyView: Slice<SkyView> = {
  initial: { skyPart: 'twilight', placingSky: false },
  escape: { placingSky: false },
  leave: { placingSky: false },
  shows(scene, { placingSky }) {
    const { picture } = scene.sky;
    if (!placingSky || !picture) return scene;
    return { ...scene, sky: { ...scene.sky, picture: { ...picture, share: PLACING * picture.share } } };
  },
  deeds: ({ session, set }) => [
    {
      label: 'Put the sky of the hour behind the skyline',
      run: () => session.scene.getState().run(setSky('The sky of the hour', { from: 'hour' })),
    },
    {
      label: 'Keep the plate’s own sky',
      run: () => session.scene.getState().run(setSky('The plate’s own sky', { from: 'plate' })),
    },
    ...SKY_PARTS.filter((part) => part !== 'storm').map((skyPart) => ({
      label: `Set the ${skyPart} of the sky`,
      run: () => set({ step: 'sky', skyPart }),
    })),
  ],
};
