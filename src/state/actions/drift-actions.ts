import { FIRST_DRIFT } from '@/core/drift/drift-schema';
import type { PlatePoint } from '@/core/geometry/camera';
import { horizonAt } from '@/core/geometry/ground';
import type { Drift, Scene } from '@/core/scene/schema';
import { freeName } from './free-name';

/** How far under the horizon a drift's foot lies at least, fraction of the height: else it would be endlessly far. */
const UNDER_HORIZON = 0.02;

/** A drift around a place: it stands on the ground under its middle, or, above the horizon, a good way off. */
export function newDrift({ drifts, plan }: Pick<Scene, 'drifts' | 'plan'>, at: PlatePoint): Drift {
  const foot = { u: at.u, v: Math.max(at.v + 0.1, horizonAt(plan.horizon, at.u) + UNDER_HORIZON) };
  const seed = 1 + Math.max(0, ...drifts.map((drift) => drift.seed));
  return { ...FIRST_DRIFT, id: crypto.randomUUID(), name: freeName('Drift', drifts), at, foot, seed };
}
