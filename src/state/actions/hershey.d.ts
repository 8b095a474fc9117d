/** Letters of single strokes (the Hershey roman simplex font). */
declare module 'hershey' {
  export function stringToPaths(text: string): {
    /** Heights count up from the middle of capitals. */
    bounds: { minX: number; maxX: number; minY: number; maxY: number };
    paths: [x: number, y: number][][];
  };
}
