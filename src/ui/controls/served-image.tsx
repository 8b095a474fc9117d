import { useEffect, useState, type ComponentProps } from 'react';
import { connection, onReturn } from '@/state/session/connection';

export interface ServedImageProps extends ComponentProps<'img'> {
  src: string;
}

/** A picture that this server makes at the size at which it is shown. One that did not come is asked for again when the server is back. */
export function ServedImage({ alt, src, onError, ...rest }: ServedImageProps) {
  const [missing, setMissing] = useState<string>();
  const [attempt, setAttempt] = useState(0);
  const isMissing = missing === src;
  useEffect(() => {
    if (!isMissing) return;
    return onReturn(() => {
      setMissing(undefined);
      setAttempt((now) => now + 1);
    }, connection);
  }, [isMissing]);
  return (
    // eslint-disable-next-line @next/next/no-img-element -- nothing is left for Next to resize
    <img
      key={attempt}
      alt={alt}
      src={src}
      draggable={false}
      data-missing={isMissing || undefined}
      title={
        isMissing ? 'This picture did not come. It is asked for again when the server answers.' : undefined
      }
      onError={(event) => {
        setMissing(src);
        onError?.(event);
      }}
      {...rest}
    />
  );
}
