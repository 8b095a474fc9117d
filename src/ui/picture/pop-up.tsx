'use client';

import { useEffect, useRef, type RefObject } from 'react';
import { useStore } from 'zustand';
import { popUpMesh } from '@/core/plan/pop-up-mesh';
import { cameraOf } from '@/core/picture/camera-of';
import type { Scene } from '@/core/scene/schema';
import { useSession } from '../editor/editor-context';

/** Half the angle through which it turns, radians, and seconds for a turn to and fro. */
const SWAY = { angle: 0.5, seconds: 9 } as const;

interface PopUpProps {
  scene: Scene;
  day: RefObject<HTMLCanvasElement | null>;
  label: string;
}

/** A scene's ground plan as a pop-up book: the plate on its surfaces, slowly turning to and fro. */
export function PopUp({ scene, day, label }: PopUpProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { readout } = useSession();
  const land = useStore(readout, (state) => state.land);

  useEffect(() => {
    let left = false;
    let stop = () => {};
    void (async () => {
      const [found, three] = [await land?.(scene).catch(() => undefined), await import('three')];
      if (left || !found || !canvas.current || !day.current) return;
      stop = turn(three, canvas.current, day.current, popUpMesh(cameraOf(scene), found));
    })();
    return () => {
      left = true;
      stop();
    };
  }, [land, scene, day]);

  return <canvas ref={canvas} role="img" aria-label={label} data-testid="pop-up" />;
}

/** Draws a mesh with the picture on it until it is stopped. */
function turn(
  three: typeof import('three'),
  canvas: HTMLCanvasElement,
  picture: HTMLCanvasElement,
  { places, textureAt, triangles, middle }: ReturnType<typeof popUpMesh>,
): () => void {
  const { clientWidth: width, clientHeight: height } = canvas;
  const renderer = new three.WebGLRenderer({ canvas, antialias: true });
  renderer.setSize(width, height, false);
  const geometry = new three.BufferGeometry();
  geometry.setAttribute('position', new three.BufferAttribute(places, 3));
  geometry.setAttribute('uv', new three.BufferAttribute(textureAt, 2));
  geometry.setIndex(new three.BufferAttribute(triangles, 1));
  const texture = new three.CanvasTexture(picture);
  texture.colorSpace = three.SRGBColorSpace;
  const material = new three.MeshBasicMaterial({ map: texture, side: three.DoubleSide });
  const world = new three.Scene();
  world.background = new three.Color('#101010');
  world.add(new three.Mesh(geometry, material));
  const eye = new three.PerspectiveCamera(52, width / height, 0.1, 4000);
  let frames = 0;
  const show = (phase: number) => {
    const angle = SWAY.angle * Math.sin(2 * Math.PI * phase);
    // Around the middle of what is there, a little higher than the eye stood.
    const back = middle * 1.15;
    eye.position.set(back * Math.sin(angle), 1.6 + 0.35 * middle, back * Math.cos(angle) - middle);
    eye.lookAt(0, 1, -0.8 * middle);
    renderer.render(world, eye);
    canvas.dataset.frames = String(++frames);
  };
  // Who wants nothing to move sees it from aside.
  if (matchMedia('(prefers-reduced-motion: reduce)').matches) show(0.25);
  else renderer.setAnimationLoop((milliseconds) => show(milliseconds / 1000 / SWAY.seconds));
  return () => {
    renderer.setAnimationLoop(null);
    [geometry, texture, material, renderer].forEach((part) => part.dispose());
  };
}
