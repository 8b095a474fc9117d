import type { PlatePoint } from '@/core/geometry/camera';
import type { EdgeStroke } from '@/core/matte/pass';
import type { ThingBox } from '@/core/layout/guess-things';
import type { UprightThing } from '@/core/layout/guess-posts';
import type { PlateLine } from '@/core/geometry/vanishing-point';
import { twinFit, type TwinClues } from '@/core/fixture/twin-fit';
import type { Alike } from '@/core/fixture/twins';
import type { Camera, CameraSettings } from '@/core/geometry/camera';
import { facadesAt } from '@/core/layout/facades';
import { findWindow } from '@/core/layout/find-window';
import { footEdges } from '@/core/layout/foot-edges';
import { showsSuchGlass } from '@/core/layout/lamp-glass';
import { guessPerspective, type Perspective } from '@/core/layout/guess-horizon';
import type { WallPiece } from '@/core/plan/wall-pieces';
import { middleOf } from '@/core/plane/middle-of';
import type { Plane } from '@/core/plane/plane';
import { findAlike, type Sample } from './find-alike';
import { brushEdges } from './edge-brush';
import { greyCopy } from './grey-copy';
import { withMats, type OpenCv } from './opencv';
import type { Picture } from './picture';
import { standingThings } from './standing-things';
import { straightLines } from './straight-lines';
import { traceEdges, type EdgeTrace } from './trace-edge';
import { straightestFacade, windowTwins, type WindowTwin } from './window-twins';
import { uprightThings } from './upright-things';

/** What a ground plan says of a plate, as far as windows are concerned. */
export interface WindowClues {
  camera: Camera;
  horizon: CameraSettings['horizon'];
  walls: WallPiece[];
}

/** What the segmentation's worker does, for one plate. */
export function createSegmentService(ready: Promise<{ cv: OpenCv }>) {
  let plate: Picture | undefined;
  let trace: EdgeTrace | undefined;
  let lines: PlateLine[] | undefined;
  let perspective: Perspective | undefined | null;
  let grey: Plane | undefined;
  const opened = () => {
    if (!plate) throw new Error('The plate is not there yet.');
    return plate;
  };
  const linesOf = (cv: OpenCv) => (lines ??= straightLines(cv, opened()));
  const aspectOf = ({ width, height }: Picture) => width / height;
  /** How the plate was taken, as far as its edges say it. */
  function perspectiveOf(cv: OpenCv): Perspective | undefined {
    perspective ??= guessPerspective(linesOf(cv), aspectOf(opened())) ?? null;
    return perspective ?? undefined;
  }
  const levelOf = (cv: OpenCv) => perspectiveOf(cv)?.level.map(({ u }) => u) ?? [];
  const greyOf = (cv: OpenCv): Plane =>
    (grey ??= withMats((keep) => {
      const { cols, rows, data } = greyCopy(cv, keep, opened());
      return { width: cols, height: rows, data: Float32Array.from(data) };
    }));
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
      return linesOf(cv);
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
    /** Places of the plate that look like a part of it, and where a ground plan lets it be. */
    async findAlike(sample: Sample, clues?: TwinClues): Promise<Alike[]> {
      const { cv } = await ready;
      const found = findAlike(cv, opened(), sample, clues && twinFit(clues));
      if (!sample.glass) return found;
      const shows = showsSuchGlass(greyOf(cv), sample.at, sample.glass.u);
      return found.filter(({ at, times }) => shows(at, times));
    },
    /** The level edges of the plate along which a wall's foot may run. */
    async footEdges(): Promise<PlateLine[]> {
      const { cv } = await ready;
      const told = perspectiveOf(cv);
      return told ? footEdges(linesOf(cv), told, aspectOf(opened())) : [];
    },
    /** The outline of the window in which a place lies. */
    async findWindow(
      { camera, horizon, walls }: WindowClues,
      at: PlatePoint,
    ): Promise<PlatePoint[] | undefined> {
      const { cv } = await ready;
      return findWindow(greyOf(cv), camera, facadesAt(camera, horizon, walls, levelOf(cv), at), at);
    },
    /** Windows that look like one, on the same wall. */
    async windowTwins({ camera, horizon, walls }: WindowClues, outline: PlatePoint[]): Promise<WindowTwin[]> {
      const { cv } = await ready;
      const facades = facadesAt(camera, horizon, walls, levelOf(cv), middleOf(outline));
      return windowTwins(cv, greyOf(cv), camera, straightestFacade(camera, facades, outline), outline);
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
