import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { FITTED as FIT, type Look } from '../view/look';
import { WHOLE_FRAME } from '@/core/frame/frame';
import { previewRegions } from './preview-regions';
import {
  fitZoom,
  panBy,
  placeInBox,
  plateAround,
  plateBox,
  visiblePart,
  zoomAt,
  ZOOM,
} from './view-geometry';

const VIEW = { width: 900, height: 600 };
const PLATE = { width: 1800, height: 1200 };
const size = fc.record({
  width: fc.integer({ min: 50, max: 3000 }),
  height: fc.integer({ min: 50, max: 3000 }),
});
const unit = fc.double({ min: 0, max: 1, noNaN: true });

describe('plateBox', () => {
  it('fits the plate into the middle of the view', () => {
    expect(plateBox(VIEW, PLATE, FIT, 1)).toEqual({ left: 6, top: 4, width: 888, height: 592 });
  });

  it('shows one plate pixel a device pixel at 1, whatever the density', () => {
    expect(plateBox(VIEW, PLATE, { ...FIT, zoom: 1 }, 1).width).toBe(1800);
    expect(plateBox(VIEW, PLATE, { ...FIT, zoom: 1 }, 2).width).toBe(900);
  });

  it('never shows past an edge of a plate that is larger than the view', () => {
    fc.assert(
      fc.property(
        size,
        size,
        fc.double({ min: 0.1, max: 8, noNaN: true }),
        unit,
        unit,
        (view, plate, zoom, u, v) => {
          const box = plateBox(view, plate, { zoom, center: { u, v } }, 1);
          if (box.width > view.width) {
            expect(box.left).toBeLessThanOrEqual(0);
            expect(box.left + box.width).toBeGreaterThanOrEqual(view.width);
          }
        },
      ),
    );
  });
});

describe('zoomAt', () => {
  it('keeps what is under the pointer where it is', () => {
    const pointer = { x: 400, y: 250 };
    const before = plateBox(VIEW, PLATE, { zoom: 1, center: { u: 0.4, v: 0.5 } }, 1);
    const look = zoomAt(VIEW, PLATE, { zoom: 1, center: { u: 0.4, v: 0.5 } }, 1, 2, pointer);
    const after = plateBox(VIEW, PLATE, look, 1);
    expect((pointer.x - after.left) / after.width).toBeCloseTo((pointer.x - before.left) / before.width, 2);
    expect((pointer.y - after.top) / after.height).toBeCloseTo((pointer.y - before.top) / before.height, 2);
  });

  it('ends at the fitted picture and at the closest look', () => {
    const pointer = { x: 10, y: 10 };
    expect(zoomAt(VIEW, PLATE, { ...FIT, zoom: 1 }, 1, 0.2, pointer).zoom).toBe('fit');
    expect(zoomAt(VIEW, PLATE, { ...FIT, zoom: 1 }, 1, 99, pointer).zoom).toBe(ZOOM.most);
    expect(fitZoom(VIEW, PLATE, 1)).toBeCloseTo(0.4933, 3);
  });
});

describe('panBy', () => {
  it('moves the picture with the pointer and stops at its edge', () => {
    const look: Look = { zoom: 1, center: { u: 0.5, v: 0.5 } };
    const before = plateBox(VIEW, PLATE, look, 1);
    const moved = plateBox(VIEW, PLATE, panBy(VIEW, PLATE, look, 1, { x: -60, y: 30 }), 1);
    expect([moved.left, moved.top]).toEqual([before.left - 60, before.top + 30]);
    expect(plateBox(VIEW, PLATE, panBy(VIEW, PLATE, look, 1, { x: 9999, y: 0 }), 1).left).toBe(0);
    expect(panBy(VIEW, PLATE, FIT, 1, { x: 50, y: 0 })).toBe(FIT);
  });
});

describe('previewRegions', () => {
  it('covers what is in view and stays within the plate', () => {
    fc.assert(
      fc.property(size, fc.double({ min: 0.6, max: 8, noNaN: true }), unit, unit, (plate, zoom, u, v) => {
        const look = { zoom, center: { u, v } };
        const { region } = previewRegions(VIEW, plate, WHOLE_FRAME, look, 1);
        const part = visiblePart(VIEW, plateBox(VIEW, plate, look, 1));
        const { fullWidth, fullHeight } = region;
        expect(region.left).toBeLessThanOrEqual(part.left * fullWidth + 1e-3);
        expect(region.left + region.width).toBeGreaterThanOrEqual(
          (part.left + part.width) * fullWidth - 1e-2,
        );
        expect(region.top + region.height).toBeLessThanOrEqual(fullHeight);
        expect(region.width * region.height).toBeGreaterThan(0);
      }),
    );
  });

  it('spends the pixels of a fitted view on the frame', () => {
    const quarter = { ...WHOLE_FRAME, u: 0.25, v: 0.25, width: 0.5, height: 0.5 };
    const { region } = previewRegions(VIEW, PLATE, quarter, FIT, 1);
    expect(region.fullWidth).toBe(1800);
    expect(region).toMatchObject({ left: 0, top: 0 });
    expect(region.width).toBeLessThan(1000);
  });
});

describe('placeInBox', () => {
  it('finds the plate under a turned frame', () => {
    const frame = { ...WHOLE_FRAME, width: 0.5, height: 0.5, angle: 90 };
    const box = { width: 300, height: 200 };
    expect(placeInBox(box, frame, 1.5, { x: 150, y: 100 })).toEqual({ u: 0.5, v: 0.5 });
    const top = placeInBox(box, frame, 1.5, { x: 150, y: 0 });
    expect(top.u).toBeCloseTo(0.5 + 0.25 / 1.5, 9);
    expect(top.v).toBeCloseTo(0.5, 9);
    expect(plateAround(box, frame)).toEqual({ left: -150, top: -100, width: 600, height: 400 });
  });
});
