import type { Command } from './command';
import type { Drift } from './schema';

/** Adds a drift. */
export const addDrift = (drift: Drift): Command => ({
  label: `Drift: ${drift.name}`,
  apply: (scene) => {
    scene.drifts.push(drift);
  },
});

/** Sets values of a drift. */
export const setDrift = (label: string, id: string, values: Partial<Omit<Drift, 'id'>>): Command => ({
  label,
  apply: (scene) => {
    const drift = scene.drifts.find((one) => one.id === id);
    if (drift) Object.assign(drift, values);
  },
});

/** Takes a drift away. */
export const removeDrift = (id: string): Command => ({
  label: 'Remove a drift',
  apply: (scene) => {
    scene.drifts = scene.drifts.filter((drift) => drift.id !== id);
  },
});
