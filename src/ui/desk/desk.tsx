'use client';

import { blackbodyRgb } from '@/core/color/planckian';
import { CAMERA_WHITE } from '@/core/color/camera-white';
import { ambientGains } from '@/core/night/ambient-gains';
import { setDesk } from '@/core/scene/commands';
import { RANGES } from '@/core/fields/ranges';
import type { Desk as DeskLevels } from '@/core/scene/schema';
import { useScene } from '../editor/editor-context';
import { CircuitStrip } from './circuit-strip';
import { litCss } from './color-css';
import { Cues } from './cues';
import { StripFader } from './strip-fader';
import classes from './desk.module.css';

/** The row of faders along the bottom. */
export function Desk() {
  const desk = useScene(({ scene }) => scene.desk);
  const night = useScene(({ scene }) => scene.night);
  const moon = useScene(({ scene }) => scene.moon);
  const circuits = useScene(({ scene }) => scene.circuits);
  const change = useScene((state) => state.change);

  const fader = (channel: keyof DeskLevels, name: string, color: string, initial = 0) => (
    <section className={classes.strip} aria-label={name}>
      <div className={classes.faders}>
        <StripFader
          label={name}
          value={desk[channel]}
          color={color}
          lit
          initial={initial}
          onChange={(value) => change(`desk ${channel}`, setDesk(name, { [channel]: value }))}
        />
      </div>
      <span className={classes.name}>{name}</span>
    </section>
  );

  return (
    <footer className={classes.desk} aria-label="Desk">
      {fader('ambient', 'Ambient', litCss(ambientGains(0, night.kelvin, night.tint), 0.4))}
      {fader('sky', 'Sky', litCss([0.45, 0.62, 1.2], 0.3))}
      {fader('moon', 'Moon', litCss(blackbodyRgb(moon.kelvin, CAMERA_WHITE)), RANGES.level.min)}
      {fader('stars', 'Stars', litCss([1, 1.02, 1.12], 0.5))}
      {fader('haze', 'Haze', litCss(blackbodyRgb(night.hazeKelvin, CAMERA_WHITE), 0.3))}
      <span className={classes.divider} />
      {circuits.map((circuit, index) => (
        <CircuitStrip key={circuit.id} circuit={circuit} index={index} />
      ))}
      {circuits.length === 0 && (
        <p className={classes.empty}>
          Nothing burns yet. Open Fixtures and click a lamp’s glass in the picture.
        </p>
      )}
      <span className={classes.divider} />
      {fader('spikes', 'Spikes', litCss([1.06, 1, 0.9], 0.6))}
      {fader('veil', 'Veil', litCss([1.04, 1, 0.94], 0.35))}
      {fader('master', 'Master', '#e6e6e6')}
      <Cues />
    </footer>
  );
}
