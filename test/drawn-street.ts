import sharp from 'sharp';
import { createCamera, project, type CameraSettings, type PlatePoint } from '@/core/geometry/camera';

/** How the drawn street was taken. */
export const DRAWN: CameraSettings = { horizon: { left: 0.47, right: 0.485 }, eyeHeight: 1.6, lens: 28 };

/** Where its row of houses stands: from near on the left to far in the middle, metres. */
export const ROW = { from: [-5, 6], to: [-1, 30] } as const;

const SIZE = { width: 1200, height: 800 };

const LONG = Math.hypot(ROW.to[0] - ROW.from[0], ROW.to[1] - ROW.from[1]);

/** Where a place of the row is seen: metres along it and up. */
export function onRow(along: number, up: number, taken = DRAWN): PlatePoint {
  const at = (axis: 0 | 1) => ROW.from[axis] + ((ROW.to[axis] - ROW.from[axis]) * along) / LONG;
  return project(createCamera(taken, SIZE.width / SIZE.height), [at(0), at(1), up])!;
}

/** How far along the row each house begins, metres. */
const HOUSES = Array.from({ length: 5 }, (_, k) => 1.2 + 5 * k);

/** The windows of the row, house by house: metres along and up. */
export const WINDOWS = HOUSES.flatMap((at) => [
  { from: at + 1.8, to: at + 3.2, low: 0.9, high: 2.3 },
  { from: at + 1.8, to: at + 3.2, low: 4.2, high: 5.7 },
]);

/** The globes beside the doors: metres along and up, and their radius. */
export const GLOBES = HOUSES.map((at) => ({ along: at + 1.35, up: 2.5, radius: 0.16 }));

/** The corners of a window as they are seen, from the upper left, around. */
export const cornersOf = ({ from, to, low, high }: (typeof WINDOWS)[number]): PlatePoint[] => [
  onRow(from, high),
  onRow(to, high),
  onRow(to, low),
  onRow(from, low),
];

/** Breadth of the bar that parts a window in two lights, metres. */
const BAR = 0.1;

/** The left light of a window that is parted by a bar. */
export const leftLight = (window: (typeof WINDOWS)[number]): (typeof WINDOWS)[number] => ({
  ...window,
  to: (window.from + window.to - BAR) / 2,
});

/**
 * A street that is drawn by its own camera: a row of brick houses with doors, windows and globes, a pavement, a road, and sky.
 *
 * @param barred whether a bar parts each window in two lights
 */
export async function drawnStreet(taken: CameraSettings = DRAWN, barred = false): Promise<Buffer> {
  const camera = createCamera(taken, SIZE.width / SIZE.height);
  const place = (x: number, y: number, z: number) => {
    const { u, v } = project(camera, [x, y, z])!;
    return `${(u * SIZE.width).toFixed(1)},${(v * SIZE.height).toFixed(1)}`;
  };
  const shape = (points: string[], fill: string) => `<polygon points="${points.join(' ')}" fill="${fill}"/>`;
  const pixel = ({ u, v }: PlatePoint) => `${(u * SIZE.width).toFixed(1)},${(v * SIZE.height).toFixed(1)}`;
  const on = (along: number, up: number) => pixel(onRow(along, up, taken));
  const panel = (from: number, to: number, low: number, high: number, fill: string) =>
    shape([on(from, low), on(to, low), on(to, high), on(from, high)], fill);
  const strip = (left: number, right: number, fill: string) =>
    shape([place(left, 3, 0), place(right, 3, 0), place(right + 9.5, 60, 0), place(left + 9.5, 60, 0)], fill);
  const parts = [
    `<rect width="${SIZE.width}" height="${SIZE.height}" fill="#9fc0e6"/>`,
    shape([place(-80, 2.5, 0), place(80, 2.5, 0), place(900, 900, 0), place(-900, 900, 0)], '#77746f'),
    strip(-5.5, -3, '#9b968c'),
    panel(-3, LONG, 0, 7, '#a4553d'),
    panel(-3, LONG, 6.6, 7, '#d8cdb8'),
    panel(-3, LONG, 3.4, 3.6, '#d8cdb8'),
    ...HOUSES.flatMap((at) => [
      panel(at, at + 1, 0, 2.2, '#27483a'),
      panel(at - 0.4, at - 0.3, 0, 6.5, '#3a2a26'),
    ]),
    ...WINDOWS.map(({ from, to, low, high }) => panel(from, to, low, high, '#1e2a36')),
    ...(barred ? WINDOWS : []).map(({ from, to, low, high }) =>
      panel((from + to - BAR) / 2, (from + to + BAR) / 2, low, high, '#e8e4da'),
    ),
    ...GLOBES.map(({ along, up, radius }) => {
      const [middle, top] = [onRow(along, up, taken), onRow(along, up + radius, taken)];
      const [cx, cy] = [middle.u * SIZE.width, middle.v * SIZE.height];
      return `<circle cx="${cx}" cy="${cy}" r="${cy - top.v * SIZE.height}" fill="#efeee8"/>`;
    }),
  ];
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${SIZE.width}" height="${SIZE.height}">${parts.join('')}</svg>`;
  return sharp(Buffer.from(svg)).jpeg({ quality: 92 }).toBuffer();
}
