import { createDisplayCodes } from '@/core/film/display-codes';
import { dabBox, followStroke, layDabs } from '@/core/matte/paint-coverage';
import type { PaintStroke } from '@/core/matte/pass';
import { runCommand } from '@/core/scene/command';
import { layStroke, setTouch } from '@/core/scene/touch-commands';
import type { Scene, Touch } from '@/core/scene/schema';
import { touchedCodes, type StrokeLaid } from '@/core/touch/touched-light';
import { touchGroundOf } from '@/engine/readouts/touch-ground';
import { kelvinGel } from '@/core/fixture/kelvin-gel';
import { RUNS, copied, litScene, never, plate, region, renderer, show } from './kit';
import { medianTime, report } from './time';

/** Places of a long stroke, and how many strokes a worked-over picture has. */
const PLACES = 2000;
const STROKES = 200;

/** What a screen of 60 frames a second leaves for one. */
const FRAME = 1000 / 60;

const LAID: StrokeLaid = { does: 'surface', stops: 0, strength: 1, erase: false };

/** A stroke that winds over the lower half of the picture. */
const winding = (places: number, size: number, turn = 0): PaintStroke => ({
  path: Array.from({ length: places }, (_, i) => [
    0.1 + (0.8 * i) / places,
    0.7 + 0.2 * Math.sin(i / 40 + turn),
    0.8,
  ]).flat(),
  ...{ size, soft: 0.9, flow: 0.04, strength: 1, erase: false, pressure: 'flow' },
});

const touched = (strokes: PaintStroke[]): Scene => {
  const scene = litScene(plate, 2);
  const touch: Touch = {
    ...{ id: 't', name: 'Touch', does: 'surface', circuit: 'a', gel: kelvinGel(2700), amount: 30 },
    strokes,
  };
  return { ...scene, touches: [touch] };
};

/** The brush of light at preview size: its dabs, and strokes that are there already. */
export async function benchTouch(): Promise<void> {
  console.log(`\nLight by hand, 1600 x 1067\n`);
  const scene = touched([]);
  await show(scene);
  const ground = await renderer.read(touchGroundOf({ scene, region }, scene.touches[0]), never);
  const codes = createDisplayCodes(255);
  for (const size of [0.02, 0.06]) {
    const stroke = winding(PLACES, size);
    const took = await medianTime(1, () => {
      const covered = new Float32Array(region.width * region.height);
      const follow = followStroke(stroke, region.fullWidth / region.fullHeight);
      for (let places = 2; places <= PLACES; places += 2) {
        const fresh = follow(stroke.path.slice(0, 3 * places));
        const box = dabBox(fresh, region);
        if (!box) continue;
        layDabs(covered, fresh, stroke.soft, region);
        touchedCodes(ground, covered, LAID, box, codes);
      }
    });
    const name = `a step of a stroke of ${PLACES} places, brush ${size}`;
    report(name, took / (PLACES / 2), { to: 'a frame of 60 a second', of: FRAME });
  }
  const many = touched(Array.from({ length: STROKES }, (_, k) => winding(40, 0.03, k)));
  let turn = 0;
  await show(many);
  const fresh = () => runCommand(many, layStroke('t', winding(40, 0.03, ++turn + 0.5))).scene;
  report(`one stroke more on ${STROKES}`, await medianTime(RUNS, () => show(fresh())), copied);
  const anew = (k: number) => touched([winding(40, 0.03, k + 0.3), ...many.touches[0].strokes.slice(1)]);
  report(`${STROKES} strokes laid anew`, await medianTime(RUNS, () => show(anew(++turn))), copied);
  const recolored = () => runCommand(many, setTouch('Gel', 't', { gel: kelvinGel(2000 + ++turn) })).scene;
  report('another gel', await medianTime(RUNS, () => show(recolored())), copied);
}
