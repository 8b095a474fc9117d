// Two plots beside each other: how what a picture takes grows, each axis by its logarithm.
import { writeFileSync } from 'node:fs';

/** A measured series: what it grows with, and how often that of the first it takes. */
export interface Growth {
  along: string;
  points: readonly { x: number; y: number }[];
}

const SIZE = { width: 340, height: 260 } as const;
const ROOM = { left: 44, right: 12, top: 16, bottom: 40 } as const;

/** The largest value of both axes of a plot, so that what grows as its cause does is a diagonal. */
const mostOf = ({ points }: Growth) => Math.max(...points.map(({ x }) => x));

function panel(growth: Growth, left: number): string {
  const most = mostOf(growth);
  const share = (value: number) => Math.log(value) / Math.log(most);
  const x = (value: number) => left + ROOM.left + share(value) * (SIZE.width - ROOM.left - ROOM.right);
  const y = (value: number) =>
    SIZE.height - ROOM.bottom - share(value) * (SIZE.height - ROOM.top - ROOM.bottom);
  const at = ({ x: along, y: takes }: { x: number; y: number }) =>
    `${x(along).toFixed(1)},${y(takes).toFixed(1)}`;
  const ticks = growth.points.map(
    ({ x: value }) =>
      `<line class="grid" x1="${x(value)}" x2="${x(value)}" y1="${y(1)}" y2="${y(most)}"/>` +
      `<line class="grid" x1="${x(1)}" x2="${x(most)}" y1="${y(value)}" y2="${y(value)}"/>` +
      `<text x="${x(value)}" y="${y(1) + 16}" text-anchor="middle">${value}</text>` +
      `<text x="${x(1) - 6}" y="${y(value) + 4}" text-anchor="end">${value}</text>`,
  );
  const dots = growth.points.map((point) => {
    const [cx, cy] = at(point).split(',');
    return `<circle cx="${cx}" cy="${cy}" r="3.5"/>`;
  });
  return [
    ...ticks,
    `<polyline class="even" points="${at({ x: 1, y: 1 })} ${at({ x: most, y: most })}"/>`,
    `<polyline class="measured" points="${growth.points.map(at).join(' ')}"/>`,
    ...dots,
    `<text x="${(x(1) + x(most)) / 2}" y="${SIZE.height - 6}" text-anchor="middle">${growth.along}</text>`,
  ].join('\n');
}

/** Draws series, each against what it grows with; dashed, what would grow as its cause does. */
export function writeGrowthPlot(path: string, series: readonly Growth[]): void {
  const width = series.length * SIZE.width;
  const style = `text { font: 12px sans-serif; fill: #555 } .grid { stroke: #ddd } polyline { fill: none; stroke-width: 2 }
.even { stroke: #999; stroke-dasharray: 5 4 } .measured { stroke: #c2410c } circle { fill: #c2410c }`;
  const panels = series.map((growth, k) => panel(growth, k * SIZE.width));
  writeFileSync(
    path,
    [
      `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${SIZE.height}" viewBox="0 0 ${width} ${SIZE.height}">`,
      `<rect width="100%" height="100%" fill="#fff"/>`,
      `<style>${style}</style>`,
      ...panels,
      '</svg>\n',
    ].join('\n'),
  );
}
