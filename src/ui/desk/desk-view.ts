import { setDeskBetween } from '@/core/scene/cue-commands';
import { setCircuit } from '@/core/scene/fixture-commands';
import { builtUp, underCue } from '@/state/actions/build-up';
import type { Slice } from '../view/slice';

export interface DeskView {
  /** Only the first so many circuits are shown burning, and whether the next come on by themselves. */
  buildUp?: number;
  buildUpRuns: boolean;
  /** A cue that is looked at for as long as it is held. */
  cueHeld?: string;
}

/** What the desk shows. */
export const deskView: Slice<DeskView> = {
  initial: { buildUpRuns: false },
  escape: { buildUp: undefined },
  shows(scene, { buildUp, cueHeld }) {
    const cued = cueHeld === undefined ? scene : underCue(scene, cueHeld);
    return buildUp === undefined ? cued : builtUp(cued, buildUp);
  },
  deeds: ({ scene: { circuits, cues }, session, set }) => {
    const { run } = session.scene.getState();
    return [
      { label: 'Build the scene up from dark', run: () => set({ buildUp: 0, buildUpRuns: true }) },
      ...cues.map((cue) => ({
        label: `Call cue ${cue.name}`,
        run: () => run(setDeskBetween(`Cue: ${cue.name}`, cue, cue, 1)),
      })),
      ...circuits.flatMap(({ id, name, muted, solo }) => [
        {
          label: `${muted ? 'Light' : 'Mute'} ${name}`,
          run: () => run(setCircuit(`${name}: ${muted ? 'on again' : 'mute'}`, id, { muted: !muted })),
        },
        {
          label: `${solo ? 'End solo of' : 'Solo'} ${name}`,
          run: () => run(setCircuit(`${name}: ${solo ? 'end solo' : 'solo'}`, id, { solo: !solo })),
        },
      ]),
    ];
  },
};
