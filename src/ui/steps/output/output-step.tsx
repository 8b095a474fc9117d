'use client';

import { Button } from '@mantine/core';
import { framedSize } from '@/core/frame/frame';
import { OUTPUT_FORMATS, outputSize } from '@/core/output/output-formats';
import { api } from '@/state/session/api';
import { Fold } from '../../controls/fold';
import { useScene, useSession, useView } from '../../editor/editor-context';
import { HowItGoes, SendButtons } from '../../sending/how-it-goes';
import { OrderRows } from '../../sending/order-rows';
import { useRememberedOrder } from '../../sending/remembered-order';
import { download, useSending } from '../../sending/use-sending';
import { NO_PLAY } from './output-view';
import { SwitchingPart, useSwitching } from './switching-part';
import { TablePart } from './table-part';
import { useEstimate } from './use-estimate';
import classes from '../../worksheet/worksheet.module.css';

/** The way out: a finished picture, the lights coming on, and the scene as a file. All are made on the server. */
export function OutputStep() {
  const { flush } = useSession();
  const id = useScene((state) => state.id);
  const plate = useScene(({ scene }) => scene.plate);
  const frame = useScene(({ scene }) => scene.frame);
  const full = framedSize(plate, frame);
  const [order, setOrder] = useRememberedOrder();
  const { width, height } = outputSize(full, order.long);
  const sending = useSending();
  const estimate = useEstimate(id, order);

  const send = () =>
    void sending.send(async () => {
      await flush();
      return api.startOutput(id, order);
    });
  const saveSceneFile = () => {
    sending.setFault(undefined);
    void flush().then(
      () => download(api.sceneFile(id)),
      (error: Error) => sending.setFault(error.message),
    );
  };

  return (
    <>
      <OrderRows order={order} full={full} onChange={setOrder} />
      <SendButtons sending={sending} onSend={send}>
        Send out {width} × {height}
      </SendButtons>
      {estimate && !sending.output && <p className={classes.hint}>{estimate}</p>}
      <HowItGoes sending={sending} />
      <p className={classes.hint}>
        {'hasLayers' in OUTPUT_FORMATS[order.format]
          ? 'Layers are for other programs to go on with. Circuits keep the names that they have here.'
          : 'The same picture as on the screen. A smaller one is made at its own size, not shrunk.'}
      </p>
      <div className={classes.actions}>
        <Button size="compact-xs" variant="default" onClick={saveSceneFile}>
          Save the scene as a file
        </Button>
      </div>
      <OtherWays />
    </>
  );
}

/** What else can be made of the scene, one part open at a time. */
function OtherWays() {
  const open = useView(({ outputPart }) => outputPart);
  const set = useView((view) => view.set);
  const { switching } = useSwitching();
  const fold = (part: NonNullable<typeof open>) => ({
    open: open === part,
    onToggle: () => set({ outputPart: open === part ? undefined : part, ...NO_PLAY }),
  });
  return (
    <>
      <Fold title="Switching on" says={`${switching.seconds.toFixed(1)} s, from dark`} {...fold('switching')}>
        <SwitchingPart />
      </Fold>
      <Fold title="Night for other photos" says="a table of colours" {...fold('table')}>
        <TablePart />
      </Fold>
    </>
  );
}
