import type * as OpenCvModule from '@techstark/opencv-js';

/** OpenCV compiled to WebAssembly, ready to be called. */
export type OpenCv = typeof OpenCvModule;

/** The names by which OpenCV is told what to do, which its own types leave open. */
export const flags = (cv: OpenCv) =>
  cv as unknown as Record<
    | 'COLOR_RGB2GRAY'
    | 'TM_CCOEFF_NORMED'
    | 'INTER_AREA'
    | 'INTER_LINEAR'
    | 'CV_8UC1'
    | 'CV_32F'
    | 'CV_8UC3'
    | 'GC_INIT_WITH_MASK'
    | 'DIST_L2'
    | 'CC_STAT_AREA'
    | 'MORPH_RECT'
    | 'MORPH_BLACKHAT'
    | 'MORPH_TOPHAT'
    | 'MORPH_OPEN'
    | 'MORPH_CLOSE'
    | 'THRESH_BINARY'
    | 'MORPH_ELLIPSE'
    | 'COLOR_RGB2Lab'
    | 'NORM_HAMMING'
    | 'RANSAC',
    number
  >;

interface Deletable {
  delete: () => void;
}

/** Keeps hold of a matrix until the work is done. */
export type Keep = <M extends Deletable>(mat: M) => M;

/** Runs some work and then frees all matrices that it kept hold of: WebAssembly's memory is not collected. */
export function withMats<T>(work: (keep: Keep) => T): T {
  const kept: Deletable[] = [];
  try {
    return work((mat) => {
      kept.push(mat);
      return mat;
    });
  } finally {
    kept.forEach((mat) => mat.delete());
  }
}

/** A module that has begun to load, once it can be called. It must not be awaited itself: it claims to be a promise. */
export function whenReady(cv: OpenCv): Promise<{ cv: OpenCv }> {
  return new Promise((resolve) => {
    if ('Mat' in cv && typeof cv.Mat === 'function') resolve({ cv });
    else (cv as { onRuntimeInitialized: () => void }).onRuntimeInitialized = () => resolve({ cv });
  });
}
