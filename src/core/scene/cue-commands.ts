import type { Command } from './command';
import { betweenCues } from './cues';
import type { Cue } from './schema';

/** Keeps a cue. */
export const addCue = (cue: Cue): Command => ({
  label: `Cue: ${cue.name}`,
  apply: (scene) => {
    scene.cues.push(cue);
  },
});

/** Takes a cue away. */
export const removeCue = (id: string): Command => ({
  label: 'Remove a cue',
  apply: (scene) => {
    scene.cues = scene.cues.filter((cue) => cue.id !== id);
  },
});

/** Names a cue. */
export const renameCue = (id: string, name: string): Command => ({
  label: 'Name of a cue',
  apply: (scene) => {
    const cue = scene.cues.find((c) => c.id === id);
    if (cue) cue.name = name;
  },
});

/** Sets the desk to a state between two cues, 0 the first and 1 the second. */
export const setDeskBetween = (label: string, from: Cue, to: Cue, share: number): Command => ({
  label,
  apply: (scene) => {
    const cue = betweenCues(from, to, share);
    const { ambient, sky, moon, stars, haze, spikes, veil, master } = cue;
    scene.desk = { ambient, sky, moon, stars, haze, spikes, veil, master };
    for (const { id, ...levels } of cue.circuits) {
      const circuit = scene.circuits.find((c) => c.id === id);
      if (circuit) Object.assign(circuit, levels, { solo: false });
    }
  },
});
