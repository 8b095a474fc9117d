import type { FrameRequest } from '@/engine/frame-request';
import type { Scene } from '@/core/scene/schema';
import type { OpenedSession } from '@/state/session/open-session';
import type { ViewState, ViewStore } from './view-store';

/** What a part of the view asks of the picture's frames. */
export type Asked = Partial<Pick<FrameRequest, 'moving' | 'surveyAt' | 'show'>>;

/** Something that can be done by its name. */
export interface Deed {
  label: string;
  run: () => void;
}

/** What deeds are done with. */
export interface DeedKit {
  scene: Scene;
  session: OpenedSession & { view: ViewStore };
  set: ViewState['set'];
}

/** A part of the editor's own share of what a window shows. It is no part of the document. */
export interface Slice<Own extends object = object> {
  initial: Own;
  /** What Escape lets go of. */
  escape?: Partial<Own>;
  /** What ends when another step is opened. */
  leave?: Partial<Own>;
  /** What else changes with some values. */
  also?: (values: Partial<Own>) => Partial<Own>;
  /** What it asks of the picture's frames. */
  asks?: (view: ViewState) => Asked;
  /** What of a scene is shown for now. */
  shows?: (scene: Scene, view: ViewState) => Scene;
  /** What can be done by its name. */
  deeds?: (kit: DeedKit) => Deed[];
}
