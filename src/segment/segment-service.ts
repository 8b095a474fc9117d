import type { PlatePoint } from '@/core/geometry/camera';
import type { EdgeStroke } from '@/core/matte/pass';
import type { ThingBox } from '@/core/layout/guess-things';
import type { UprightThing } from '@/core/layout/guess-posts';
import type { PlateLine } from '@/core/geometry/vanishing-point';
import type { Alike } from '@/core/fixture/twins';
import { findAlike, type Sample } from './find-alike';
import { brushEdges } from './edge-brush';
import type { OpenCv } from './opencv';
import type { Picture } from './picture';
import { standingThings } from './standing-things';
import { straightLines } from './straight-lines';
import { traceEdges, type EdgeTrace } from './trace-edge';
import { uprightThings } from './upright-things';

/** What the segmentation's worker does, for one plate. */
export function createSegmentService(ready: Promise<{ cv: OpenCv }>) {
  let plate: Picture | undefined;
  let trace: EdgeTrace | undefined;
  const opened = () => {
    if (!plate) throw new Error('The plate is not there yet.');
    return plate;
  };
  return {
    /** Takes the plate, before anything else. */
    open(picture: Picture): void {
      plate = picture;
    },
    /** Coverage after a stroke on what was found before, if anything was. A byte a pixel of the picture. */
    async brush(before: Uint8Array | undefined, stroke: EdgeStroke): Promise<Uint8Array> {
      const { cv } = await ready;
      const picture = opened();
      return brushEdges(cv, picture, before ?? new Uint8Array(picture.width * picture.height), stroke);
    },
    /** The straight edges of the plate. */
    async straightLines(): Promise<PlateLine[]> {
      const { cv } = await ready;
      return straightLines(cv, opened());
    },
    /** The thin upright things of the plate. */
    async uprightThings(): Promise<UprightThing[]> {
      const { cv } = await ready;
      return uprightThings(cv, opened());
    },
    /** Things that stand on the ground of the plate. */
    async standingThings(horizon: number): Promise<ThingBox[]> {
      const { cv } = await ready;
      return standingThings(cv, opened(), horizon);
    },
    /** Places of the plate that look like a part of it. */
    async findAlike(sample: Sample): Promise<Alike[]> {
      const { cv } = await ready;
      return findAlike(cv, opened(), sample);
    },
    /** Begins to follow edges from a place. */
    async traceFrom(place: PlatePoint): Promise<void> {
      const { cv } = await ready;
      trace?.close();
      trace = traceEdges(cv, opened(), place);
    },
    /** Points along the edges to another place, with it. */
    async traceTo(place: PlatePoint): Promise<PlatePoint[]> {
      await ready;
      return trace?.to(place) ?? [place];
    },
  };
}

export type SegmentService = ReturnType<typeof createSegmentService>;
