/**
 * Does something once the night shows a frame that it does not show yet, and no other is in the making.
 *
 * @param night the night's canvas, as `createPainter` keeps it
 */
export function whenShown(night: HTMLCanvasElement | null, then: () => void): void {
  const before = night?.dataset.frames;
  const look = () => {
    if (night && night.isConnected && (night.dataset.frames === before || night.dataset.busy !== 'false'))
      requestAnimationFrame(look);
    else then();
  };
  requestAnimationFrame(look);
}
