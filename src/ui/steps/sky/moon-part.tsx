'use client';

import { Button } from '@mantine/core';
import { skyPlaceAt } from '@/core/sky/direction';
import { trueMoon } from '@/core/sky/true-moon';
import { cameraOf } from '@/core/picture/camera-of';
import { clampTo, RANGES, type Range } from '@/core/fields/ranges';
import { setMoon } from '@/core/scene/commands';
import { FIRST_MOON } from '@/core/scene/new-scene';
import { placeTrueMoon, raiseMoon } from '@/core/scene/sky-commands';
import type { Moon } from '@/core/scene/schema';
import { NumberRow, ratioScale } from '../../controls/number-row';
import { useScene, useSession } from '../../editor/editor-context';
import { useSkyRow, type Look } from './sky-rows';
import { WhenRows } from './stars-part';
import classes from '../../worksheet/worksheet.module.css';

/** Where a moon is put that is to be seen: on the right, near the top. */
const IN_PICTURE = { u: 0.74, v: 0.14 };

/** Where the moon stands, and how it looks; its fader is on the desk. */
export function MoonPart() {
  const moon = useScene(({ scene }) => scene.moon);
  const change = useScene((state) => state.change);
  const run = useScene((state) => state.run);
  const { scene: store } = useSession();
  const isSeen = useScene(({ scene }) => scene.sky.from === 'hour');
  const look = useSkyRow('moon');
  const place = (name: keyof Moon, label: string, range: Range, extra?: Look) => (
    <NumberRow
      label={label}
      value={moon[name]}
      range={range}
      initial={FIRST_MOON[name]}
      onChange={(value) => change(`moon ${name}`, setMoon(`Moon: ${label.toLowerCase()}`, { [name]: value }))}
      {...extra}
    />
  );

  function putInPicture(): void {
    const { azimuth, elevation } = skyPlaceAt(cameraOf(store.getState().scene), IN_PICTURE);
    run(raiseMoon({ azimuth, elevation: clampTo(elevation, RANGES.elevation) }));
  }

  return (
    <>
      <div className={classes.actions}>
        <Button size="compact-xs" variant="default" onClick={putInPicture}>
          Put it in the picture
        </Button>
      </div>
      {place('azimuth', 'To the right', RANGES.azimuth)}
      {place('elevation', 'Height', RANGES.elevation)}
      {place('kelvin', 'Colour', RANGES.kelvin, { scale: ratioScale(RANGES.kelvin) })}
      {isSeen && (
        <>
          {look('phase', 'Phase', RANGES.strength)}
          {look('size', 'Size', RANGES.moonSize)}
          {look('tilt', 'Tilt', RANGES.tilt)}
          {look('halo', 'Halo', RANGES.strength)}
        </>
      )}
      <p className={classes.hint}>
        At 0° it stands before you; at 180° behind your back, where it only lights the land. Phase 0.5 is
        full. Drag it in the picture; roll the wheel over it for its size.
      </p>
      {isSeen && <WhenRows />}
      {isSeen && <TrueMoon />}
    </>
  );
}

/** The moon as it truly stands at the moment above. */
function TrueMoon() {
  const when = useScene(({ scene }) => scene.sky.when);
  const run = useScene((state) => state.run);
  const { elevation } = trueMoon(when);
  const isUp = elevation >= RANGES.elevation.min;
  return (
    <div className={classes.actions}>
      <Button size="compact-xs" variant="default" onClick={() => run(placeTrueMoon())}>
        {isUp ? 'Take the true moon' : 'Take the true moon: it is down then'}
      </Button>
    </div>
  );
}
