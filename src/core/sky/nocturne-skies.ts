import { FIRST_SKY, type SkySettings } from './sky-schema';

/** What a ready-made night says of the sky over it, beside what its hour and haze say. */
export interface NocturneSky {
  afterglow: number;
  clouds: Pick<SkySettings['clouds'], 'cover' | 'soft'>;
  /** Whether the moon is up. */
  moon: boolean;
}

const CLEAR: NocturneSky = { afterglow: 0, clouds: { cover: 0, soft: FIRST_SKY.clouds.soft }, moon: false };

const SKIES: Readonly<Record<string, Partial<NocturneSky>>> = {
  'last-sun': { afterglow: 0.6 },
  dusk: { afterglow: 0.3 },
  'after-rain': { clouds: { cover: 0.6, soft: 0.6 } },
  moonlight: { clouds: { cover: 0.25, soft: 0.8 }, moon: true },
};

/** The sky of a ready-made night; clear for those that say nothing of it. */
export const nocturneSky = (id: string): NocturneSky => ({ ...CLEAR, ...SKIES[id] });
