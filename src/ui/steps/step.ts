import type { ComponentType, RefObject } from 'react';
import type { PlatePoint } from '@/core/geometry/camera';
import type { Scene } from '@/core/scene/schema';
import type { Slice } from '../view/slice';
import type { ViewState } from '../view/view-store';
import type { Box } from '../picture/view-geometry';

/** The picture as a step finds it: where the plate lies, its canvases, and the pointer. */
export interface Stage {
  /** Where the plate lies in the view, pixels. */
  box: Box;
  /** How far the frame turns the plate, degrees. */
  turned: number;
  night: RefObject<HTMLCanvasElement | null>;
  /** The day's canvas. */
  day: RefObject<HTMLCanvasElement | null>;
  /** What is drawn over the night while a stroke is under way. */
  live: RefObject<HTMLCanvasElement | null>;
  /** Where gestures draw their way. */
  trail: RefObject<SVGPathElement | null>;
}

/** A step of the worksheet: all that tells it from the others. One folder each beside this file, and one line in the registry. */
export interface StepInfo<View extends object = object> {
  title: string;
  /** Its own part of the view's state. */
  view: Slice<View>;
  /** What was decided, in one line. */
  decided: (scene: Scene) => string;
  /** Its controls, in the worksheet. */
  Body: ComponentType;
  /** Its marks on the picture, and the gestures that they take. */
  Surface: ComponentType<Stage>;
  /** What lies over its marks and is not drawn with them. */
  Tags?: ComponentType<Stage>;
  /** What it shows over the picture. `pointer` is the place of the plate under the pointer, while no values are read there. */
  Over?: ComponentType<Stage & { pointer: PlatePoint | undefined }>;
  /** Whether all of the plate is shown, whatever the frame. */
  wholePlate?: boolean;
  /** Whether strokes are drawn over the night while they are under way. */
  drawsLive?: boolean;
  /** Whether it follows the pointer. */
  followsPointer?: boolean;
  /** Whether it works on the day: that is shown under its marks. */
  showsDay?: (view: ViewState) => boolean;
  /** Whether its marks stay while the pointer is elsewhere. */
  keepsMarks?: (view: ViewState) => boolean;
}
