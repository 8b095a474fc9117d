// Where lamps that are clicked are told to hang, against where they do.
import { groundPoint } from '@/core/geometry/ground';
import { cameraOf } from '@/core/picture/camera-of';
import type { Scene } from '@/core/scene/schema';
import type { HungLamp } from '@/core/layout/hang-lamp';
import type { ClickedLamp } from '@/engine/stages/hung';
import { usualLamp } from '@/state/actions/fixture-actions';
import { kindOfLamp, lampCounts } from './layout-alike';
import { placeOf, type Layout } from './layout-files';

/** Where in its glass a lamp is clicked, in radii beside its middle. */
const CLICK = { u: 0.25, v: 0.2 } as const;

/** How far each lamp that counts is told to be, over how far it is under the scene's own plan; NaN where nothing is told. */
export async function lampDistances(
  scene: Scene,
  { known }: Layout,
  hang: (scene: Scene, lamp: ClickedLamp) => Promise<HungLamp | undefined>,
): Promise<number[]> {
  const camera = cameraOf(scene);
  const ahead = (at: { u: number; v: number }) => groundPoint(camera, at)[1];
  const shares: number[] = [];
  for (const { kind, members } of known.alike.lamps) {
    const usual = usualLamp(kindOfLamp(kind));
    for (const { centre, radius, foot } of members.filter(lampCounts)) {
      const at = { u: centre[0] + CLICK.u * radius, v: centre[1] + CLICK.v * radius };
      const told = await hang(scene, { at, usual });
      shares.push(told ? ahead(told.foot) / ahead(placeOf(foot)) : NaN);
    }
  }
  return shares;
}

/** Share of lamps that are told to be as far as they are, within some factors, and that are told to hang half as far again or worse. */
export function distanceShares(shares: readonly number[]): Record<string, number> {
  const off = shares.map((share) => Math.abs(Math.log(share)));
  const within = (factor: number) => off.filter((one) => one <= Math.log(factor)).length / off.length;
  return { 'within 10 %': within(1.1), 'within 25 %': within(1.25), 'off by half': 1 - within(1.5) };
}
