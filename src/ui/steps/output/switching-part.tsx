'use client';

import { Button } from '@mantine/core';
import { useLocalStorage } from '@mantine/hooks';
import {
  FIRST_SWITCHING,
  ownWay,
  SWITCHING_FORMS,
  SWITCHING_RANGES,
  switchingExtent,
  switchingSchema,
  wayOf,
  WAYS_ON,
  type Switching,
  type SwitchingForm,
  type WayOn,
} from '@/core/output/switching';
import { burns } from '@/core/picture/layers';
import { api } from '@/state/session/api';
import { NumberRow } from '../../controls/number-row';
import { useScene, useSession, useView } from '../../editor/editor-context';
import { HowItGoes, SendButtons } from '../../sending/how-it-goes';
import { Choice } from '../../controls/choice';
import { useSending } from '../../sending/use-sending';
import { NO_PLAY } from './output-view';
import classes from '../../worksheet/worksheet.module.css';

const FORMS = (Object.keys(SWITCHING_FORMS) as SwitchingForm[]).map((value) => ({
  value,
  label: SWITCHING_FORMS[value].label,
}));

const WAYS = (Object.keys(WAYS_ON) as WayOn[]).map((value) => ({ value, label: WAYS_ON[value].label }));

/** What is remembered of a scene, where it is still sound. */
function remembered(text: string | undefined): Switching {
  try {
    return switchingSchema.validateSync(JSON.parse(text ?? ''), { strict: true });
  } catch {
    return FIRST_SWITCHING;
  }
}

/** How a scene's lights come on, as this browser remembers it. */
export function useSwitching() {
  const id = useScene((state) => state.id);
  const [switching, set] = useLocalStorage<Switching>({
    key: `sundew-switching-${id}`,
    defaultValue: FIRST_SWITCHING,
    deserialize: remembered,
  });
  return { switching, set };
}

/** The lights coming on, circuit by circuit: seen here, and sent out as a moving picture. */
export function SwitchingPart() {
  const { flush } = useSession();
  const id = useScene((state) => state.id);
  const scene = useScene((state) => state.scene);
  const { switching, set } = useSwitching();
  const plays = useView(({ playing }) => playing !== undefined);
  const setView = useView((view) => view.set);
  const sending = useSending();
  const burning = scene.circuits.filter((circuit) => burns(circuit, scene));
  const { frames, isTooLarge } = switchingExtent(scene, switching);

  if (burning.length === 0 && scene.cues.length === 0) {
    return (
      <p className={classes.hint}>Nothing burns yet. Light a lamp in Fixtures, and see it come on here.</p>
    );
  }
  const send = () =>
    void sending.send(async () => {
      await flush();
      return api.startSwitching(id, switching);
    });
  return (
    <>
      {scene.cues.length > 0 && <FadeRows switching={switching} onChange={set} />}
      {!switching.fade && <WayRows switching={switching} onChange={set} />}
      <NumberRows switching={switching} onChange={set} />
      <div className={classes.actions}>
        <Button
          size="compact-sm"
          variant="default"
          onClick={() => setView(plays ? NO_PLAY : { playing: switching })}
        >
          {plays ? 'Stop' : 'Play it here'}
        </Button>
      </div>
      <SendButtons sending={sending} onSend={send} disabled={isTooLarge}>
        Send out {frames} pictures
      </SendButtons>
      {isTooLarge && (
        <p className={classes.hint}>
          Too long for its size. Make it smaller, shorter, or of fewer pictures a second.
        </p>
      )}
      <HowItGoes sending={sending} />
    </>
  );
}

interface RowsProps {
  switching: Switching;
  onChange: (switching: Switching) => void;
}

const DARK = '';

/** Whether it comes on from dark, or fades from a cue. */
function FadeRows({ switching, onChange }: RowsProps) {
  const cues = useScene(({ scene }) => scene.cues).map(({ id, name }) => ({ value: id, label: name }));
  const { fade } = switching;
  const setFade = (next: Switching['fade']) => onChange({ ...switching, fade: next });
  return (
    <>
      <Choice
        caption="From"
        data={[{ value: DARK, label: 'Dark, circuit by circuit' }, ...cues]}
        value={fade?.from ?? DARK}
        onChange={(from) => setFade(from === DARK ? undefined : { ...fade, from })}
      />
      {fade && (
        <Choice
          caption="To"
          data={[{ value: DARK, label: 'As it is now' }, ...cues]}
          value={fade.to ?? DARK}
          onChange={(to) => setFade({ from: fade.from, ...(to !== DARK && { to }) })}
        />
      )}
    </>
  );
}

/** How each circuit comes on, in their order. */
function WayRows({ switching, onChange }: RowsProps) {
  const scene = useScene((state) => state.scene);
  const own = (circuit: string) => ownWay(scene.fixtures.filter((fixture) => fixture.circuit === circuit));
  const setWay = (circuit: string, way: WayOn) => {
    const others = switching.ways.filter((set) => set.circuit !== circuit);
    onChange({ ...switching, ways: way === own(circuit) ? others : [...others, { circuit, way }] });
  };
  return scene.circuits
    .filter((circuit) => burns(circuit, scene))
    .map(({ id, name }) => (
      <Choice
        key={id}
        caption={name}
        label={`How ${name} comes on`}
        data={WAYS}
        value={wayOf(switching, id, scene.fixtures)}
        onChange={(way) => setWay(id, way)}
      />
    ));
}

const ROWS = [
  ['seconds', 'Takes'],
  ['hold', 'Then stands'],
  ['fps', 'Pictures/s'],
  ['long', 'Long side'],
  ['seed', 'Chance'],
] as const;

function NumberRows({ switching, onChange }: RowsProps) {
  const row = (name: (typeof ROWS)[number][0] | 'quality', label: string) => (
    <NumberRow
      key={name}
      label={label}
      value={switching[name]}
      range={SWITCHING_RANGES[name]}
      initial={FIRST_SWITCHING[name]}
      onChange={(value) => onChange({ ...switching, [name]: value })}
    />
  );
  return (
    <>
      {ROWS.map(([name, label]) => row(name, label))}
      <Choice
        caption="As"
        label="What it is written as"
        data={FORMS}
        value={switching.form}
        onChange={(form) => onChange({ ...switching, form })}
      />
      {switching.form === 'webp' && row('quality', 'Quality')}
    </>
  );
}
