import { driftAhead, driftCover, type NearLamp } from '@/core/drift/drift-cover';
import { driftGlow, layGlow } from '@/core/drift/drift-glow';
import { throughDrifts } from '@/core/drift/through-drifts';
import { kindOf } from '@/core/fixture/kinds';
import { placeFixture } from '@/core/fixture/place-fixture';
import { cameraOf } from '@/core/picture/camera-of';
import { pictureWeights } from '@/core/picture/weights';
import type { Layer } from '@/core/picture/layers';
import type { Drift } from '@/core/scene/schema';
import type { Spot } from '../graph/spot';
import { smallOf } from '../graph/spot';
import { stage } from '../graph/stage';
import { lampSettings, throwOf } from './direct';
import { litLayers, weighing } from './grip';
import { plate } from './plate';
import { landOf } from './land';
import { relief } from './relief';
import { surfaceLight } from './mirror';
import { survey } from './survey';

/** Lamps that hang before a drift. */
function lampsBefore(at: Spot, drift: Drift): NearLamp[] {
  const camera = cameraOf(landOf(at));
  const ahead = driftAhead(camera, drift);
  return at.scene.fixtures
    .filter((fixture) => kindOf(fixture).seen && fixture.path.length === 0)
    .filter((fixture) => placeFixture(camera, fixture).place[1] < ahead)
    .map((fixture) => ({ at: fixture.at, size: fixture.size }));
}

/** What a drift holds back of what lies behind it. */
export const cover = stage({
  name: 'drift',
  part: 'the drifts',
  settings: (at, drift: Drift) => ({ ...landOf(at), drift, lamps: lampsBefore(at, drift) }),
  inputs: (at) => ({ relief: relief(at) }),
  planes: (pixels) => ({ cover: pixels }),
  pace: 'heavy',
  newest: ({ id }) => id,
  run(out, inputs, { prepared: { drift, lamps, ...land } }, { region, of, cut }) {
    driftCover(cut(out.cover), of(inputs.relief), cameraOf(land), region, drift, lamps);
  },
});

/** The drifts of a scene, the farthest first. */
function farToNear(at: Spot): Drift[] {
  const camera = cameraOf(landOf(at));
  return [...at.scene.drifts].sort((a, b) => driftAhead(camera, b) - driftAhead(camera, a));
}

/** What drifts send on of a layer's light, cd/m2. */
export const driftLight = stage({
  name: 'drift light',
  part: 'the drifts',
  settings: (at, { fixtures, moon }: Layer) => ({
    ...lampSettings(at, { fixtures, moon }),
    drifts: farToNear(at),
  }),
  inputs: (at) => ({
    small: plate(smallOf(at)),
    covers: farToNear(at).map((drift) => cover(at, drift)),
  }),
  prepare({ settings: { drifts, ...land }, inputs }) {
    const { camera, lights } = throwOf(land, land.fixtures, inputs.small, land.moon);
    return { drifts, camera, lights };
  },
  planes: (pixels) => ({ glow: pixels }),
  pace: 'heavy',
  whole: true,
  newest: ({ circuit, gel }) => `${circuit.id} ${JSON.stringify(gel)}`,
  run(out, { covers }, { prepared: { drifts, camera, lights } }, { region }) {
    out.glow.fill(0);
    drifts.forEach((drift, k) =>
      layGlow(out.glow, covers[k].cover, driftGlow(camera, drift, lights), drift, camera.aspect, region),
    );
  },
});

/** Layers whose light drifts send on: of lamps and the moon. */
const shiningLayers = (at: Spot): Layer[] => litLayers(at).filter(({ touches }) => !touches);

/** The sum of all light, as drifts hold it back and send it on. */
export const drifted = stage({
  name: 'drifted',
  part: 'the drifts',
  settings: (at) => ({
    ...{ night: at.scene.night, desk: at.scene.desk, circuits: at.scene.circuits },
    lit: weighing(shiningLayers(at)),
  }),
  inputs: (at) => ({
    ...{ light: surfaceLight(at), survey: survey(at) },
    covers: at.scene.drifts.map((drift) => cover(at, drift)),
    glows: shiningLayers(at).map((layer) => driftLight(at, layer)),
  }),
  prepare({ settings: { lit, ...scene }, inputs }) {
    const { mist, layers } = pictureWeights(scene, lit, inputs.survey.medianLuminance[0]);
    return { ambient: mist.color, colors: layers.map(({ shine }) => shine) };
  },
  planes: (pixels) => ({ r: pixels, g: pixels, b: pixels, through: pixels }),
  pace: 'quick',
  passing: true,
  run(out, inputs, { prepared: { ambient, colors }, kernels }, { cut, of }) {
    throughDrifts(
      of(out),
      cut(out.through),
      of(inputs.light),
      inputs.covers.map(({ cover: plane }) => cut(plane)),
      ambient,
      inputs.glows.map(({ glow }, k) => ({ glow: cut(glow), color: colors[k] })),
      kernels,
    );
  },
});

/** All light of the scene, before the lens. */
export const sceneLight = (at: Spot) => (at.scene.drifts.length > 0 ? drifted(at) : surfaceLight(at));
