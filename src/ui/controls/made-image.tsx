import { useInViewport } from '@mantine/hooks';
import PQueue from 'p-queue';
import { useEffect, useRef, useState, type SyntheticEvent } from 'react';
import { ServedImage, type ServedImageProps } from './served-image';

/**
 * Pictures that the server must first make: so many are asked for at a time. A browser has few ways to one server, and a wall of pictures
 * that are being made would hold all of them for as long as that takes.
 */
const AT_ONCE = 2;

const turns = new PQueue({ concurrency: AT_ONCE });

/** Waits for a turn from when it is wanted. What took its turn gives it back by `end`, or when it goes. */
function useTurn(isWanted: boolean): { isOn: boolean; end: () => void } {
  const [isOn, setOn] = useState(false);
  const held = useRef<() => void>(undefined);
  useEffect(() => {
    if (!isWanted) return;
    let gone = false;
    void turns.add(() =>
      gone
        ? Promise.resolve()
        : new Promise<void>((resolve) => {
            held.current = resolve;
            setOn(true);
          }),
    );
    return () => {
      gone = true;
      held.current?.();
    };
  }, [isWanted]);
  return { isOn, end: () => held.current?.() };
}

/** What waits is as large as what it waits for. */
const WHOLE = { display: 'block', width: '100%', height: '100%' } as const;

/** A picture that the server makes when it is asked for: asked for in its turn, once it is in view. */
export function MadeImage({ onLoad, onError, ...rest }: ServedImageProps) {
  const { ref, inViewport } = useInViewport();
  const [seen, setSeen] = useState(false);
  if (inViewport && !seen) setSeen(true);
  const { isOn, end } = useTurn(seen);
  const ending =
    (then?: (event: SyntheticEvent<HTMLImageElement>) => void) =>
    (event: SyntheticEvent<HTMLImageElement>) => {
      end();
      then?.(event);
    };
  if (!isOn) return <span ref={ref} className={rest.className} style={{ ...WHOLE, ...rest.style }} />;
  return <ServedImage {...rest} onLoad={ending(onLoad)} onError={ending(onError)} />;
}
