import { regionKey, wholeRegion } from '@/core/plane/region';
import type { Scene } from '@/core/scene/schema';
import type { FrameRequest } from '../frame-request';
import { surveySize } from '../sizes';
import type { Memo } from './memo';
import type { Tell } from './tell';

/** Where a stage is asked for: a document and a part of its picture, with all that was asked for of the same document. */
export interface Spot extends Omit<FrameRequest, 'turn'> {
  tell: Tell;
  /** What was made of parts of the document, kept from one to the next. */
  memo: Memo;
  /** Everything asked for so far, so that each is told apart once. */
  wants: Map<string, unknown>;
}

export const spotOf = (request: FrameRequest, tell: Tell, memo: Memo): Spot => ({
  ...request,
  ...{ tell, memo, wants: new Map<string, unknown>() },
});

/** The small copy of a spot's plate, on which things are looked for. */
export function smallOf(at: Spot): Spot {
  const { width, height } = surveySize(at.scene.plate);
  return { ...at, region: wholeRegion(width, height) };
}

/** A spot on the whole plate of another document, small; what was asked for of this one is none of it. */
export const ofOther = (at: Spot, scene: Scene): Spot =>
  smallOf({ ...at, scene, moving: undefined, surveyAt: undefined, show: undefined, wants: new Map() });

/** A spot's text for one stage's result with some parameters. */
export const spotKey = (name: string, { region, moving, surveyAt, tell }: Spot, params: unknown): string =>
  [name, regionKey(region), tell(moving), tell(surveyAt), tell(params)].join(' ');
