import type { PlatePoint } from '@/core/geometry/camera';
import type { EdgeStroke } from '@/core/matte/pass';
import type { ThingBox } from '@/core/layout/guess-things';
import type { UprightThing } from '@/core/layout/guess-posts';
import type { PlateLine } from '@/core/geometry/vanishing-point';
import { twinFit, type TwinClues } from '@/core/fixture/twin-fit';
import type { Alike } from '@/core/fixture/twins';
import type { Camera, CameraSettings } from '@/core/geometry/camera';
import { facadesAt } from '@/core/layout/facades';
import { findWindows } from '@/core/layout/find-window';
import { footEdges } from '@/core/layout/foot-edges';
import { showsSuchGlass } from '@/core/layout/lamp-glass';
import type { WallPiece } from '@/core/plan/wall-pieces';
import { middleOf } from '@/core/plane/middle-of';
import { findDiscs } from './find-discs';
import { findAlike, type Sample } from './find-alike';
import { dayCodes } from './day-codes';
import { brushEdges } from './edge-brush';
import { KnownPlate } from './known-plate';
import type { OpenCv } from './opencv';
import type { Picture } from './picture';
import { samePlace, type PlaceMatch } from './same-place';
import { standingThings } from './standing-things';
import { traceEdges, type EdgeTrace } from './trace-edge';
import { straightestFacade, windowTwins, type WindowTwin } from './window-twins';
import { uprightThings } from './upright-things';

/** What a ground plan says of a plate, as far as windows are concerned. */
export interface WindowClues {
  camera: Camera;
  horizon: CameraSettings['horizon'];
  walls: WallPiece[];
}

/** What the segmentation's worker does, for one plate. It answers once OpenCV is `ready`. */
export class SegmentService {
  private plate?: KnownPlate;
  private trace?: EdgeTrace;

  constructor(private readonly ready: Promise<{ cv: OpenCv }>) {}

  /** Takes the plate, before anything else. */
  open(picture: Picture): void {
    this.plate = new KnownPlate(dayCodes(picture));
  }

  /** Coverage after a stroke on what was found before, if anything was. A byte a pixel of the picture. */
  async brush(before: Uint8Array | undefined, stroke: EdgeStroke): Promise<Uint8Array> {
    const { cv, plate } = await this.means();
    const { width, height } = plate.picture;
    return brushEdges(cv, plate.picture, before ?? new Uint8Array(width * height), stroke);
  }

  /** The straight edges of the plate. */
  async straightLines(): Promise<PlateLine[]> {
    const { cv, plate } = await this.means();
    return plate.lines(cv);
  }

  /** The thin upright things of the plate. */
  async uprightThings(): Promise<UprightThing[]> {
    const { cv, plate } = await this.means();
    return uprightThings(cv, plate.picture);
  }

  /** Things that stand on the ground of the plate. */
  async standingThings(horizon: number): Promise<ThingBox[]> {
    const { cv, plate } = await this.means();
    return standingThings(cv, plate.picture, horizon);
  }

  /** Places of the plate that look like a part of it, and where a ground plan lets it be. */
  async findAlike(sample: Sample, clues?: TwinClues): Promise<Alike[]> {
    const { cv, plate } = await this.means();
    const fits = clues && twinFit(clues);
    const found = findAlike(cv, plate.small(cv), sample, fits);
    if (!sample.glass) return found;
    const discs = fits ? findDiscs(plate.grey(cv), sample.at, fits) : [];
    const shows = showsSuchGlass(plate.grey(cv), sample.at, sample.glass.u);
    return [...found.filter(({ at, times }) => shows(at, times)), ...discs];
  }

  /** The level edges of the plate along which a wall's foot may run. */
  async footEdges(): Promise<PlateLine[]> {
    const { cv, plate } = await this.means();
    const told = plate.perspective(cv);
    return told ? footEdges(plate.lines(cv), told, plate.aspect) : [];
  }

  /** The outlines of windows in which a place may lie, the likeliest first; none where it lies in none. */
  async findWindows(clues: WindowClues, at: PlatePoint): Promise<PlatePoint[][]> {
    const { cv, plate } = await this.means();
    const { camera, horizon, walls } = clues;
    return findWindows(plate.grey(cv), camera, facadesAt(camera, horizon, walls, plate.levels(cv), at), at);
  }

  /** Windows that look like one, on the same wall. */
  async windowTwins({ camera, horizon, walls }: WindowClues, outline: PlatePoint[]): Promise<WindowTwin[]> {
    const { cv, plate } = await this.means();
    const facades = facadesAt(camera, horizon, walls, plate.levels(cv), middleOf(outline));
    return windowTwins(cv, plate.grey(cv), camera, straightestFacade(camera, facades, outline), outline);
  }

  /** How the plate shows what another photo of the same place does; undefined where that is not sure. */
  async samePlace(other: Picture): Promise<PlaceMatch | undefined> {
    const { cv, plate } = await this.means();
    return samePlace(cv, plate.picture, dayCodes(other));
  }

  /** Begins to follow edges from a place. */
  async traceFrom(place: PlatePoint): Promise<void> {
    const { cv, plate } = await this.means();
    this.trace?.close();
    this.trace = traceEdges(cv, plate.picture, place);
  }

  /** Points along the edges to another place, with it. */
  async traceTo(place: PlatePoint): Promise<PlatePoint[]> {
    await this.ready;
    return this.trace?.to(place) ?? [place];
  }

  private async means(): Promise<{ cv: OpenCv; plate: KnownPlate }> {
    const { cv } = await this.ready;
    if (!this.plate) throw new Error('The plate is not there yet.');
    return { cv, plate: this.plate };
  }
}
