'use client';

import { UnstyledButton } from '@mantine/core';
import {
  Chart,
  Filler,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  type ChartData,
} from 'chart.js';
import { useState } from 'react';
import { Line } from 'react-chartjs-2';
import { useStore } from 'zustand';
import type { ToneHistogram } from '@/core/picture/tone-histogram';
import { useSession, useView } from '../../editor/editor-context';
import { CurveEditor } from './curve-editor';
import classes from '../../worksheet/worksheet.module.css';

Chart.register(LineController, LineElement, PointElement, LinearScale, Filler);

/** Neighbouring codes that are drawn as one. */
const BIN = 4;

/** Shares as heights: the largest is 1, the ends that are clipped do not count for it. */
function heights({ shares }: ToneHistogram, logarithmic: boolean): { x: number; y: number }[] {
  const bins = Array.from({ length: shares.length / BIN }, (_, k) =>
    shares.subarray(k * BIN, (k + 1) * BIN).reduce((sum, share) => sum + share, 0),
  );
  const height = (share: number) => (logarithmic ? Math.log1p(3000 * share) : share);
  const most = Math.max(1e-6, ...bins.slice(1, -1).map(height));
  return bins.map((share, k) => ({ x: k, y: Math.min(1, height(share) / most) }));
}

const percent = (share: number) => `${(100 * share).toFixed(share < 0.1 ? 1 : 0)} %`;

/** The tones of the day and of the night over each other. */
export function ToneChart() {
  const { readout } = useSession();
  const { day, night } = useStore(readout);
  const curved = useView((view) => view.nightPart === 'tones');
  const probing = useView((view) => view.probing);
  const setView = useView((view) => view.set);
  const [logarithmic, setLogarithmic] = useState(false);
  if (!day || !night) return <div className={classes.tones} aria-busy="true" />;
  const area = (histogram: ToneHistogram, color: string, fill: string) => ({
    data: heights(histogram, logarithmic),
    borderColor: color,
    backgroundColor: fill,
    borderWidth: 1,
    pointRadius: 0,
    fill: true,
    tension: 0.2,
  });
  const data: ChartData<'line', { x: number; y: number }[]> = {
    datasets: [area(night, '#8fa6e8', '#6f88d066'), area(day, '#b9b2a2', '#b9b2a222')],
  };
  return (
    <figure className={classes.tones} data-tall={curved || undefined}>
      <Line
        data={data}
        aria-label="Tones of day and night"
        role="img"
        options={{
          animation: false,
          responsive: true,
          maintainAspectRatio: false,
          events: [],
          parsing: false,
          scales: {
            x: { type: 'linear', display: false, min: 0, max: 256 / BIN - 1 },
            y: { display: false, min: 0, max: 1.02 },
          },
        }}
      />
      {curved && <CurveEditor />}
      <figcaption>
        <span data-testid="clipped">
          black {percent(night.black)}, white {percent(night.white)}
        </span>
        <UnstyledButton aria-pressed={probing} onClick={() => setView({ probing: !probing })}>
          probe
        </UnstyledButton>
        <UnstyledButton aria-pressed={logarithmic} onClick={() => setLogarithmic(!logarithmic)}>
          {logarithmic ? 'logarithmic' : 'linear'}
        </UnstyledButton>
      </figcaption>
    </figure>
  );
}
