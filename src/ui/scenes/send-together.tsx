'use client';

import { Modal } from '@mantine/core';
import type { SceneSummary } from '@/core/scene/opened-scene';
import { api } from '@/state/session/api';
import { HowItGoes, SendButtons } from '../sending/how-it-goes';
import { OrderRows } from '../sending/order-rows';
import { useRememberedOrder } from '../sending/remembered-order';
import { useSending } from '../sending/use-sending';

interface SendTogetherProps {
  /** What goes out, in the order of the wall. */
  scenes: SceneSummary[];
  onClose: () => void;
}

/** How several scenes go out: each as a picture, in one ZIP. It goes on when this is closed. */
export function SendTogether({ scenes, onClose }: SendTogetherProps) {
  const [order, setOrder] = useRememberedOrder();
  const sending = useSending();
  const largest = {
    width: Math.max(...scenes.map(({ width }) => width)),
    height: Math.max(...scenes.map(({ height }) => height)),
  };
  const count = scenes.length === 1 ? '1 scene' : `${scenes.length} scenes`;
  const start = () =>
    api.startPictures(
      scenes.map(({ id }) => id),
      order,
    );
  return (
    <Modal opened onClose={onClose} title={`Send out ${count}`} size="sm">
      <OrderRows order={order} full={largest} onChange={setOrder} />
      <SendButtons sending={sending} onSend={() => void sending.send(start)}>
        Send out {count} in one ZIP
      </SendButtons>
      <HowItGoes sending={sending} />
    </Modal>
  );
}
