import { withBurning } from '@/core/picture/layers';
import { setDeskBetween } from '@/core/scene/cue-commands';
import { runCommand } from '@/core/scene/command';
import type { Scene } from '@/core/scene/schema';

/** A scene in which only the first so many circuits burn, whatever is muted or soloed: one light after another from dark. */
export const builtUp = (scene: Scene, count: number): Scene =>
  withBurning(scene, (_, place) => place < count);

/** A scene with the desk as a cue has it; as it is where there is no such cue. */
export function underCue(scene: Scene, id: string): Scene {
  const cue = scene.cues.find((own) => own.id === id);
  return cue ? runCommand(scene, setDeskBetween('', cue, cue, 1)).scene : scene;
}

/** What a build-up shows at a step, in words. */
export function buildUpSays({ circuits }: Scene, count: number): string {
  if (count === 0) return 'No lamps';
  return count >= circuits.length && circuits.length > 1
    ? `+ ${circuits.at(-1)!.name}: all of them`
    : `+ ${circuits[count - 1].name}`;
}
