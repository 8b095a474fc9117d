import type { PlatePoint } from '@/core/geometry/camera';

/** The place of the plate under a point of the screen. The picture may be turned: only its own matrix tells. */
export function placeOnSvg(
  element: SVGGraphicsElement,
  { clientX, clientY }: { clientX: number; clientY: number },
): PlatePoint {
  const svg = element.ownerSVGElement ?? (element as SVGSVGElement);
  const { x, y } = new DOMPoint(clientX, clientY).matrixTransform(svg.getScreenCTM()!.inverse());
  return { u: x / svg.width.baseVal.value, v: y / svg.height.baseVal.value };
}
