import sharp from 'sharp';
import { createCamera, project, type CameraSettings } from '@/core/geometry/camera';

/** How the drawn street was taken. */
export const DRAWN: CameraSettings = { horizon: { left: 0.47, right: 0.485 }, eyeHeight: 1.6, lens: 28 };

/** Where its row of houses stands: from near on the left to far in the middle, metres. */
export const ROW = { from: [-5, 6], to: [-1, 30] } as const;

const SIZE = { width: 1200, height: 800 };

/** A street that is drawn by its own camera: a row of brick houses with doors and windows, a pavement, a road, and sky. */
export async function drawnStreet(): Promise<Buffer> {
  const camera = createCamera(DRAWN, SIZE.width / SIZE.height);
  const place = (x: number, y: number, z: number) => {
    const { u, v } = project(camera, [x, y, z])!;
    return `${(u * SIZE.width).toFixed(1)},${(v * SIZE.height).toFixed(1)}`;
  };
  const shape = (points: string[], fill: string) => `<polygon points="${points.join(' ')}" fill="${fill}"/>`;
  const [fx, fy] = ROW.from;
  const [dx, dy] = [ROW.to[0] - fx, ROW.to[1] - fy];
  const long = Math.hypot(dx, dy);
  /** On the row: metres along it and up. */
  const on = (along: number, up: number) => place(fx + (dx * along) / long, fy + (dy * along) / long, up);
  const panel = (from: number, to: number, low: number, high: number, fill: string) =>
    shape([on(from, low), on(to, low), on(to, high), on(from, high)], fill);
  const doors = Array.from({ length: 5 }, (_, k) => 1.2 + 5 * k);
  const strip = (left: number, right: number, fill: string) =>
    shape([place(left, 3, 0), place(right, 3, 0), place(right + 4, 60, 0), place(left + 4, 60, 0)], fill);
  const parts = [
    `<rect width="${SIZE.width}" height="${SIZE.height}" fill="#9fc0e6"/>`,
    shape([place(-80, 2.5, 0), place(80, 2.5, 0), place(900, 900, 0), place(-900, 900, 0)], '#77746f'),
    strip(-5.5, -3, '#9b968c'),
    panel(-3, long, 0, 7, '#a4553d'),
    panel(-3, long, 6.6, 7, '#d8cdb8'),
    panel(-3, long, 3.4, 3.6, '#d8cdb8'),
    ...doors.flatMap((at) => [
      panel(at, at + 1, 0, 2.2, '#27483a'),
      panel(at + 1.8, at + 3.2, 0.9, 2.3, '#1e2a36'),
      panel(at + 1.8, at + 3.2, 4.2, 5.7, '#1e2a36'),
      panel(at - 0.4, at - 0.3, 0, 6.5, '#3a2a26'),
    ]),
  ];
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${SIZE.width}" height="${SIZE.height}">${parts.join('')}</svg>`;
  return sharp(Buffer.from(svg)).jpeg({ quality: 92 }).toBuffer();
}
