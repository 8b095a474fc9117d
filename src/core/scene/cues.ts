import { faderGain } from '../fields/fader-gain';
import { RANGES } from '../fields/ranges';
import type { Cue, Scene } from './schema';

/** The desk of a scene as a cue. */
export function cueOf({ desk, circuits }: Scene, id: string, name: string): Cue {
  return {
    id,
    name,
    ...desk,
    circuits: circuits.map(({ id: circuit, level, lampLevel, spillLevel, warmth, muted }) => ({
      ...{ id: circuit, level, lampLevel, spillLevel, warmth, muted },
    })),
  };
}

const OFF = RANGES.level.min;

/** A level between two, as light is cross-faded: its amount, not its stops, goes evenly from one to the other. */
export function betweenLevels(from: number, to: number, share: number): number {
  if (share <= 0) return from;
  if (share >= 1) return to;
  const light = (1 - share) * faderGain(from) + share * faderGain(to);
  return light <= faderGain(OFF + 1e-6) ? OFF : Math.min(RANGES.level.max, Math.max(OFF, Math.log2(light)));
}

/** The state of the desk a share of the way from one cue to another. A circuit that only one of them knows is as there. */
export function betweenCues(from: Cue, to: Cue, share: number): Cue {
  const level = (a: number, b: number) => betweenLevels(a, b, share);
  const before = new Map(from.circuits.map((circuit) => [circuit.id, circuit]));
  const met = to.circuits.map((circuit) => {
    const other = before.get(circuit.id) ?? circuit;
    before.delete(circuit.id);
    // What is muted on one side fades as one that is all the way down.
    const [a, b] = [other.muted ? OFF : other.level, circuit.muted ? OFF : circuit.level];
    return {
      id: circuit.id,
      level: share <= 0 ? other.level : share >= 1 ? circuit.level : level(a, b),
      lampLevel: level(other.lampLevel, circuit.lampLevel),
      spillLevel: level(other.spillLevel, circuit.spillLevel),
      warmth: other.warmth + Math.min(1, Math.max(0, share)) * (circuit.warmth - other.warmth),
      muted: share <= 0 ? other.muted : share >= 1 ? circuit.muted : other.muted && circuit.muted,
    };
  });
  return {
    ...to,
    ambient: level(from.ambient, to.ambient),
    sky: level(from.sky, to.sky),
    moon: level(from.moon, to.moon),
    stars: level(from.stars, to.stars),
    haze: level(from.haze, to.haze),
    spikes: level(from.spikes, to.spikes),
    veil: level(from.veil, to.veil),
    master: level(from.master, to.master),
    circuits: [...met, ...before.values()],
  };
}
