/* The sum of all light, four pixels at a time. The same as src/core/picture/mix-picture.ts: same formulas, 32-bit. */
import {
  LAYER_AIR,
  LAYER_AIR_WEIGHTS,
  LAYER_BYTES,
  LAYER_SHINE,
  LAYER_SHINE_WEIGHTS,
  LAYER_SOURCE,
  LAYER_SOURCE_FROM,
  LAYER_SOURCE_TO,
  LAYER_SOURCE_WEIGHTS,
  LAYER_SPILL,
  LAYER_SPILL_WEIGHTS,
} from './generated';
import { fading } from './fading';
import { ONE, splatAt, ZERO } from './film';

/**
 * Mixes rows of a region. `width` is at least 4; the last pixels of a row are done twice where it is no multiple of 4.
 * `params`: gain on land, light of the mist r, g, b, mist per metre, gain on the sky.
 */
export function mixRows(
  outR: usize,
  outG: usize,
  outB: usize,
  plateR: usize,
  plateG: usize,
  plateB: usize,
  nightR: usize,
  nightG: usize,
  nightB: usize,
  distance: usize,
  land: usize,
  layers: usize,
  layerCount: i32,
  params: usize,
  width: i32,
  from: i32,
  to: i32,
): void {
  const ambient = splatAt(params, 0);
  const mistR = splatAt(params, 4);
  const mistG = splatAt(params, 8);
  const mistB = splatAt(params, 12);
  const perMetre = splatAt(params, 16);
  const sky = splatAt(params, 20);
  const overSky = f32x4.sub(ambient, sky);
  const hazy = load<f32>(params, 16) > 0;

  for (let y = from; y < to; y++) {
    let x = 0;
    while (x < width) {
      if (x > width - 4) x = width - 4;
      const pixel = <usize>(y * width + x);
      const at = pixel << 2;
      const r = v128.load(plateR + at);
      const g = v128.load(plateG + at);
      const b = v128.load(plateB + at);
      let lightR = ZERO;
      let lightG = ZERO;
      let lightB = ZERO;
      let shoneR = ZERO;
      let shoneG = ZERO;
      let shoneB = ZERO;
      let addedR = ZERO;
      let addedG = ZERO;
      let addedB = ZERO;
      let layer = layers;
      for (let k = 0; k < layerCount; k++, layer += LAYER_BYTES) {
        const spill = v128.load(<usize>load<u32>(layer + LAYER_SPILL) + at);
        lightR = f32x4.add(lightR, f32x4.mul(spill, splatAt(layer, LAYER_SPILL_WEIGHTS)));
        lightG = f32x4.add(lightG, f32x4.mul(spill, splatAt(layer, LAYER_SPILL_WEIGHTS + 4)));
        lightB = f32x4.add(lightB, f32x4.mul(spill, splatAt(layer, LAYER_SPILL_WEIGHTS + 8)));
        const scattering = <usize>load<u32>(layer + LAYER_AIR);
        if (scattering != 0) {
          const air = v128.load(scattering + at);
          addedR = f32x4.add(addedR, f32x4.mul(air, splatAt(layer, LAYER_AIR_WEIGHTS)));
          addedG = f32x4.add(addedG, f32x4.mul(air, splatAt(layer, LAYER_AIR_WEIGHTS + 4)));
          addedB = f32x4.add(addedB, f32x4.mul(air, splatAt(layer, LAYER_AIR_WEIGHTS + 8)));
        }
        const shiny = <usize>load<u32>(layer + LAYER_SHINE);
        if (shiny != 0) {
          const shine = v128.load(shiny + at);
          // Most of a picture shines with nothing of most layers, and shows none of their lamps.
          if (v128.any_true(shine)) {
            shoneR = f32x4.add(shoneR, f32x4.mul(shine, splatAt(layer, LAYER_SHINE_WEIGHTS)));
            shoneG = f32x4.add(shoneG, f32x4.mul(shine, splatAt(layer, LAYER_SHINE_WEIGHTS + 4)));
            shoneB = f32x4.add(shoneB, f32x4.mul(shine, splatAt(layer, LAYER_SHINE_WEIGHTS + 8)));
          }
        }
        const first = load<i32>(layer + LAYER_SOURCE_FROM);
        if (y >= first && y < load<i32>(layer + LAYER_SOURCE_TO)) {
          const source = v128.load(
            <usize>load<u32>(layer + LAYER_SOURCE) + ((<usize>((y - first) * width + x)) << 2),
          );
          if (v128.any_true(source)) {
            addedR = f32x4.add(addedR, f32x4.mul(source, splatAt(layer, LAYER_SOURCE_WEIGHTS)));
            addedG = f32x4.add(addedG, f32x4.mul(source, splatAt(layer, LAYER_SOURCE_WEIGHTS + 4)));
            addedB = f32x4.add(addedB, f32x4.mul(source, splatAt(layer, LAYER_SOURCE_WEIGHTS + 8)));
          }
        }
      }
      const own = f32x4.add(sky, f32x4.mul(overSky, v128.load(land + at)));
      let sceneR = f32x4.add(f32x4.mul(own, v128.load(nightR + at)), f32x4.add(f32x4.mul(r, lightR), shoneR));
      let sceneG = f32x4.add(f32x4.mul(own, v128.load(nightG + at)), f32x4.add(f32x4.mul(g, lightG), shoneG));
      let sceneB = f32x4.add(f32x4.mul(own, v128.load(nightB + at)), f32x4.add(f32x4.mul(b, lightB), shoneB));
      if (hazy) {
        const clear = fading(f32x4.mul(perMetre, v128.load(distance + at)));
        const veil = f32x4.sub(ONE, clear);
        sceneR = f32x4.add(f32x4.mul(clear, sceneR), f32x4.mul(veil, mistR));
        sceneG = f32x4.add(f32x4.mul(clear, sceneG), f32x4.mul(veil, mistG));
        sceneB = f32x4.add(f32x4.mul(clear, sceneB), f32x4.mul(veil, mistB));
      }
      sceneR = f32x4.add(sceneR, addedR);
      sceneG = f32x4.add(sceneG, addedG);
      sceneB = f32x4.add(sceneB, addedB);
      v128.store(outR + at, sceneR);
      v128.store(outG + at, sceneG);
      v128.store(outB + at, sceneB);
      x += 4;
    }
  }
}
