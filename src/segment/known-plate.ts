import type { PlateLine } from '@/core/geometry/vanishing-point';
import { guessPerspective, type Perspective } from '@/core/layout/guess-horizon';
import type { Plane } from '@/core/plane/plane';
import { greyCopy, smallCopy } from './grey-copy';
import { withMats, type OpenCv } from './opencv';
import type { Picture } from './picture';
import { straightLines } from './straight-lines';

/** A plate, and what was found out about it so far: each once, when it is first asked for. */
export class KnownPlate {
  private found: { lines?: PlateLine[]; perspective?: Perspective | 'none'; grey?: Plane; small?: Picture } =
    {};

  constructor(readonly picture: Picture) {}

  get aspect(): number {
    return this.picture.width / this.picture.height;
  }

  /** Its straight edges. */
  lines(cv: OpenCv): PlateLine[] {
    return (this.found.lines ??= straightLines(cv, this.picture));
  }

  /** How it was taken, as far as its edges say it. */
  perspective(cv: OpenCv): Perspective | undefined {
    this.found.perspective ??= guessPerspective(this.lines(cv), this.aspect) ?? 'none';
    return this.found.perspective === 'none' ? undefined : this.found.perspective;
  }

  /** Where its level lines run together. */
  levels(cv: OpenCv): number[] {
    return this.perspective(cv)?.level.map(({ u }) => u) ?? [];
  }

  /** Its small copy. */
  small(cv: OpenCv): Picture {
    return (this.found.small ??= smallCopy(cv, this.picture));
  }

  /** Its grey copy, codes. */
  grey(cv: OpenCv): Plane {
    return (this.found.grey ??= withMats((keep) => {
      const { cols, rows, data } = greyCopy(cv, keep, this.picture);
      return { width: cols, height: rows, data: Float32Array.from(data) };
    }));
  }
}
