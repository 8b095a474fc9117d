import sharp from 'sharp';
import type { OutputColours } from '@/core/output/output-formats';

/** The package's own profile of some colours, ICC. */
export async function profileOf(colours: OutputColours): Promise<Uint8Array> {
  const dot = sharp({ create: { width: 1, height: 1, channels: 3, background: '#000' } });
  const { icc } = await sharp(await dot.withIccProfile(colours).png().toBuffer()).metadata();
  return icc!;
}
