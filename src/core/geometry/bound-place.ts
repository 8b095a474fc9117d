import { COORDINATE } from '../fields/fields';
import { clampTo } from '../fields/ranges';
import type { PlatePoint } from './camera';

const bound = (value: number) => (Number.isFinite(value) ? clampTo(value, COORDINATE) : 0.5);

/** A place no farther out than documents hold them. */
export const boundPlace = ({ u, v }: PlatePoint): PlatePoint => ({ u: bound(u), v: bound(v) });
