'use client';

import { Button } from '@mantine/core';
import { clampTo, RANGES } from '@/core/fields/ranges';
import { cameraOf } from '@/core/picture/camera-of';
import { pitchTo } from '@/core/plan/deck-plane';
import { wallAt } from '@/core/plan/wall-at';
import { wallPieces } from '@/core/plan/wall-pieces';
import { setSurface } from '@/core/scene/commands';
import type { GroundPlan, Scene } from '@/core/scene/schema';
import { NumberRow } from '../../controls/number-row';
import { useScene } from '../../editor/editor-context';
import classes from '../../worksheet/worksheet.module.css';

type Deck = GroundPlan['decks'][number];

/** The pitch with which a deck's highest corner lies on the wall that is seen there; undefined where there is none. */
function pitchToWall(scene: Scene, deck: Deck): number | undefined {
  const camera = cameraOf(scene);
  const walls = wallPieces(camera, scene.plan.walls);
  const [highest] = [...deck.outline].sort((p, q) => p.v - q.v);
  const hit = wallAt(camera, walls, highest);
  const pitch = hit && pitchTo(camera, deck, hit.place);
  return pitch === undefined ? undefined : clampTo(pitch, RANGES.pitch);
}

/** How steeply a deck rises from its lowest edge: awnings, roofs and ramps do. */
export function SlopeRows({ deck }: { deck: Deck }) {
  const scene = useScene((state) => state.scene);
  const run = useScene((state) => state.run);
  const change = useScene((state) => state.change);
  const { id, name, pitch = 0 } = deck;
  const toWall = pitchToWall(scene, deck);
  const set = (value: number) =>
    setSurface(`${name}: pitch`, 'decks', id, { pitch: value === 0 ? undefined : value });
  return (
    <>
      <NumberRow
        label="Pitch"
        value={pitch}
        range={RANGES.pitch}
        initial={0}
        onChange={(value) => change(`surface ${id} pitch`, set(value))}
      />
      {toWall !== undefined && (
        <div className={classes.pair}>
          <span>Let it rise</span>
          <div className={classes.actions}>
            <Button size="compact-xs" variant="default" onClick={() => run(set(toWall))}>
              Up to the wall behind
            </Button>
          </div>
        </div>
      )}
    </>
  );
}
