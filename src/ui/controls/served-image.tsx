import type { ComponentProps } from 'react';

/** A picture that this server makes at the size at which it is shown. */
export function ServedImage({ alt, ...rest }: ComponentProps<'img'>) {
  // eslint-disable-next-line @next/next/no-img-element -- nothing is left for Next to resize
  return <img alt={alt} draggable={false} {...rest} />;
}
