'use client';

import { useEffect, useRef, type RefObject, type SVGAttributes } from 'react';
import type { Plane } from '@/core/plane/plane';
import own from './placed.module.css';

/** Most room that a picture takes while it is cut out, CSS pixels. */
const ROOM = { width: 840, height: 430 };

interface CutPictureProps {
  picture: ImageData | undefined;
  /** What is left of it. */
  left: Plane | undefined;
  gestures: SVGAttributes<SVGSVGElement>;
  trail: RefObject<SVGPathElement | null>;
}

/** A picture, dimmed where it is cut away. */
export function CutPicture({ picture, left, gestures, trail }: CutPictureProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const veil = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (picture && canvas.current) paint(canvas.current, picture);
  }, [picture]);
  useEffect(() => {
    if (left && veil.current) paint(veil.current, veilOver(left));
  }, [left]);
  if (!picture) return <div className={own.waiting}>Opening the picture …</div>;
  const scale = Math.min(ROOM.width / picture.width, ROOM.height / picture.height);
  const size = { width: Math.round(picture.width * scale), height: Math.round(picture.height * scale) };
  return (
    <div className={own.cut} style={size}>
      <canvas ref={canvas} data-testid="cut-picture" />
      <canvas ref={veil} data-testid="cut-veil" data-left={left ? 'true' : undefined} />
      <svg {...size} data-testid="cut-marks" {...gestures}>
        <path ref={trail} className={own.trail} />
      </svg>
    </div>
  );
}

function paint(canvas: HTMLCanvasElement, image: ImageData): void {
  [canvas.width, canvas.height] = [image.width, image.height];
  canvas.getContext('2d')!.putImageData(image, 0, 0);
}

/** How dark what is cut away is shown. */
const DIM = 205;

function veilOver({ width, height, data }: Plane): ImageData {
  const rgba = new Uint8ClampedArray(4 * data.length);
  for (let i = 0; i < data.length; i++) rgba[4 * i + 3] = DIM * (1 - data[i]);
  return new ImageData(rgba, width, height);
}
