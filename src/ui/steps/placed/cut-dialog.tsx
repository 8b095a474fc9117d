'use client';

import { Button, Modal, SegmentedControl } from '@mantine/core';
import { useRef, useState, type RefObject } from 'react';
import { RANGES, type Range } from '@/core/fields/ranges';
import { MOST_OUTLINE } from '@/core/matte/matte-schema';
import { FIRST_CUT, type PlacedCut } from '@/core/placed/placed-schema';
import { setPlaced } from '@/core/scene/placed-commands';
import type { Placed } from '@/core/scene/schema';
import { NumberRow, ratioScale } from '../../controls/number-row';
import { useScene } from '../../editor/editor-context';
import { drawWay } from '../../picture/draw-way';
import { useStroke } from '../../picture/use-stroke';
import { CutPicture } from './cut-picture';
import { useCut, type CutTool } from './use-cut';
import classes from '../../worksheet/worksheet.module.css';
import own from './placed.module.css';

const TOOLS: { value: CutTool; label: string }[] = [
  { value: 'loop', label: 'Find in a loop' },
  { value: 'take', label: 'Take' },
  { value: 'leave', label: 'Leave out' },
  { value: 'keep', label: 'Keep inside a line' },
  { value: 'away', label: 'Cut inside a line' },
];

const HINTS: Record<CutTool, string> = {
  loop: 'Draw roughly around the thing. Its edge is found by itself.',
  take: 'Draw over what is missing. It goes up to the next edge.',
  leave: 'Draw over what is too much.',
  keep: 'Draw exactly around what should stay.',
  away: 'Draw exactly around what should go.',
};

/** How large the brush is at first, fraction of the picture's width. */
const BRUSH = 0.02;

/** Where a stroke of keys begins and how large its loop is. */
const BY_KEYS = { u: 0.5, v: 0.5, reach: 0.25 } as const;

/** A placed picture by itself, to be cut out. */
export function CutDialog({ placed, onClose }: { placed: Placed; onClose: () => void }) {
  const [tool, setTool] = useState<CutTool>('loop');
  const [size, setSize] = useState(BRUSH);
  const trail = useRef<SVGPathElement>(null);
  const cut = useCut(placed);
  const closed = isLoop(tool);
  const strokes = useCutStroke(trail, tool, size, (places) => void cut.stroke(tool, places, size));
  return (
    <Modal opened onClose={onClose} title={`Cut out ${placed.name}`} size={880} yOffset={40}>
      <SegmentedControl
        size="xs"
        fullWidth
        aria-label="What a stroke does"
        value={tool}
        data={TOOLS}
        onChange={(value) => setTool(value)}
      />
      <p className={classes.hint} role="status">
        {cut.busy ? 'Looking for the edge …' : cut.isFull ? 'That is as much as a cut holds.' : HINTS[tool]}
      </p>
      {cut.fault && <p role="alert">{cut.fault}</p>}
      <CutPicture {...cut} gestures={cut.busy || cut.isFull ? {} : strokes} trail={trail} />
      <div className={own.rows}>
        {!closed && (
          <NumberRow
            label="Brush size"
            value={size}
            range={RANGES.brush}
            initial={BRUSH}
            scale={ratioScale(RANGES.brush)}
            onChange={setSize}
          />
        )}
        {placed.cut && <EdgeRows placed={placed} cut={placed.cut} />}
      </div>
      <div className={classes.actions}>
        <Button
          size="compact-sm"
          variant="default"
          disabled={cut.busy || cut.isFull}
          onClick={() => void cut.stroke(tool, loopOfKeys(), size)}
        >
          Use it on the middle
        </Button>
        <Button
          size="compact-sm"
          variant="default"
          disabled={!cut.isCut || cut.busy}
          onClick={() => void cut.startOver()}
        >
          Start over
        </Button>
        <Button size="compact-sm" onClick={onClose}>
          Done
        </Button>
      </div>
    </Modal>
  );
}

/** Whether a tool's stroke goes around something. */
const isLoop = (tool: CutTool) => tool !== 'take' && tool !== 'leave';

/** Strokes over the picture that is cut, with their trail. `onDrawn` gets their places: u and v, one after the other. */
function useCutStroke(
  trail: RefObject<SVGPathElement | null>,
  tool: CutTool,
  size: number,
  onDrawn: (places: number[]) => void,
) {
  const closed = isLoop(tool);
  return useStroke({
    onPart: (path) => drawWay(trail.current, path, closed, (width) => (closed ? 1.5 : 2 * size * width)),
    onEnd(path) {
      trail.current?.removeAttribute('d');
      const places = path.filter((_, i) => i % 3 < 2).slice(0, 2 * MOST_OUTLINE);
      if (places.length >= (closed ? 6 : 2)) onDrawn(places);
    },
    onGiveUp: () => trail.current?.removeAttribute('d'),
  });
}

/** A loop around the middle, for those who draw nothing. */
function loopOfKeys(): number[] {
  const { u, v, reach } = BY_KEYS;
  return Array.from({ length: 24 }, (_, k) => (k * 2 * Math.PI) / 24).flatMap((angle) => [
    u + reach * Math.cos(angle),
    v + 1.6 * reach * Math.sin(angle),
  ]);
}

/** How the edge of a cut is led and softened. */
function EdgeRows({ placed: { id, name }, cut }: { placed: Placed; cut: PlacedCut }) {
  const change = useScene((state) => state.change);
  const row = (key: 'refine' | 'grow' | 'feather', label: string, range: Range) => (
    <NumberRow
      label={label}
      value={cut[key]}
      range={range}
      initial={FIRST_CUT[key]}
      onChange={(value) =>
        change(
          `placed ${id} cut ${key}`,
          setPlaced(`${name}: ${label.toLowerCase()}`, id, { cut: { ...cut, [key]: value } }),
        )
      }
    />
  );
  return (
    <>
      {row('refine', 'Refine', RANGES.refine)}
      {row('grow', 'Grow', RANGES.grow)}
      {row('feather', 'Feather', RANGES.feather)}
    </>
  );
}
