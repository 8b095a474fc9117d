import type { ToneRange } from '@/core/grade/grade';
import { gradeOf, gradeTables, GRADE_TABLES, isPlain } from '@/core/grade/grade';
import { ambientLight } from '@/core/night/ambient-light';
import { surroundOf } from '@/core/picture/surround-of';
import { regionKey, wholeRegion } from '@/core/plane/region';
import type { Night, Place } from '@/core/scene/schema';
import type { FrameRequest } from './frame-request';
import type { Graph } from './graph';
import type { MatteNodes } from './matte-nodes';
import { matteOf, nightKey, openKey } from './node-keys';
import type { EvenNodes } from './even-nodes';
import { surveySize } from './sizes';
import { LUT_STRIDE } from './task';
import type { GradeRefs, LutRefs, PlaneRef, PlateRefs, Rows, Task } from './task';

/** A refit that is measured anew. */
const UNFITTED = { always: true, low: 0, high: 1 };

/** Nodes of the night without its lamps. */
export function createNightNodes(
  { arena, pool, store, assets, inBands, planes }: Graph,
  { evenNode }: EvenNodes,
  { matteNode }: MatteNodes,
) {
  /** Factors of ambient light: of darkened surroundings, and of places. */
  async function openNode(request: FrameRequest, signal: AbortSignal): Promise<PlaneRef | undefined> {
    const { scene, region } = request;
    const key = openKey(request);
    if (key === undefined) return undefined;
    const surround = surroundOf(scene);
    const node = await store.node<{ open: PlaneRef }>(
      key,
      async () => {
        const places: (Place & { coverage: PlaneRef })[] = [];
        for (const place of scene.places.filter(({ stops }) => stops !== 0)) {
          places.push({ ...place, coverage: await matteNode(request, matteOf(scene, place.matte), signal) });
        }
        return planes({ open: region.width * region.height }, signal, async ({ open: out }) => {
          const run = (task: (rows: Rows) => Task) => inBands(region, signal, task, 'quick');
          await run((rows) => ({ type: 'surround', surround, region, rows, out }));
          for (const { coverage, outside, stops } of places) {
            await run((rows) => ({ type: 'place', coverage, outside, stops, region, rows, out }));
          }
        });
      },
      `open ${regionKey(region)}`,
    );
    return node.refs.open;
  }

  /** The grade of a night with its tables; undefined for one that has none. */
  async function gradeRefs(
    night: Night,
    signal: AbortSignal,
    range?: ToneRange,
  ): Promise<GradeRefs | undefined> {
    if (isPlain(night)) return undefined;
    const { shape, byTone, lut } = night;
    const { refs } = await store.node<{ tables: PlaneRef }>(
      `grade ${JSON.stringify([shape, byTone.stops])}`,
      () =>
        planes({ tables: GRADE_TABLES.length }, signal, ({ tables }) => {
          gradeTables(new Float32Array(arena.memory.buffer, tables, GRADE_TABLES.length), night);
          return Promise.resolve();
        }),
      'grade',
    );
    const grade = gradeOf(night, range);
    if (!lut || lut.strength === 0) return { grade, ...refs };
    return { grade, ...refs, lut: (await lutNode(lut.asset, signal)).refs };
  }

  const lutNode = (asset: string, signal: AbortSignal) =>
    store.node<LutRefs>(`lut ${asset}`, async () => {
      const { data, dimensions, size, domainMin, domainMax } = await assets.lut(asset, signal);
      const entries = data.length / 3;
      const node = await planes({ data: LUT_STRIDE * entries }, signal, (refs) => {
        const padded = new Float32Array(arena.memory.buffer, refs.data, LUT_STRIDE * entries);
        for (let i = 0; i < entries; i++) padded.set(data.subarray(3 * i, 3 * i + 3), LUT_STRIDE * i);
        return Promise.resolve();
      });
      return { blocks: node.blocks, refs: { ...node.refs, dimensions, size, domainMin, domainMax } };
    });

  /** The tones of a night, from the small copy, so that every size of a picture is refitted alike. */
  async function rangeOf(request: FrameRequest, signal: AbortSignal): Promise<ToneRange> {
    const size = surveySize(request.scene.plate);
    const scene = { ...request.scene, night: { ...request.scene.night, refit: UNFITTED, lut: null } };
    const small = { ...request, scene, region: wholeRegion(size.width, size.height) };
    const { refs } = await store.node<{ range: PlaneRef }>(
      `range ${nightKey(small)}`,
      async () => {
        const plate = (await evenNode(small, signal)).refs;
        const open = await openNode(small, signal);
        const grade = (await gradeRefs(scene.night, signal))!;
        const light = ambientLight(scene.night);
        return planes({ range: 2 }, signal, ({ range: out }) =>
          pool.run({ type: 'range', plate, ...size, light, open, grade, out }, signal),
        );
      },
      'range',
    );
    const [low, high] = new Float32Array(arena.memory.buffer, refs.range, 2);
    return { low, high };
  }

  const nightNode = (request: FrameRequest, plate: PlateRefs, signal: AbortSignal) =>
    store.node<PlateRefs>(
      nightKey(request),
      async () => {
        const { scene, region } = request;
        const { night } = scene;
        const range = night.refit.always ? await rangeOf(request, signal) : undefined;
        const open = await openNode(request, signal);
        const grade = await gradeRefs(night, signal, range);
        const light = ambientLight(night);
        const count = region.width * region.height;
        return planes({ r: count, g: count, b: count }, signal, (out) =>
          inBands(
            region,
            signal,
            (rows) => ({ type: 'night', plate, light, open, grade, region, rows, out }),
            'quick',
          ),
        );
      },
      `night ${regionKey(request.region)}`,
    );

  return { nightNode, rangeOf };
}
