import { regionKey, type Region } from '@/core/plane/region';
import type { LoadCodes } from '@/engine/render-assets';

/** Loads a plate's codes, those of a first picture ahead of their turn. */
export interface LoadAhead {
  /** Begins to load what will soon be asked for; the first time only. */
  begin: (asset: string, region: Region, signal: AbortSignal) => void;
  codes: LoadCodes;
}

/** A fine picture's plate is on its way while the coarse one is made. What did not come is asked for again in its turn. */
export function createLoadAhead(load: LoadCodes): LoadAhead {
  let first: { key: string; codes: Promise<Uint16Array> } | undefined;
  let isBegun = false;
  const keyOf = (asset: string, region: Region) => `${asset} ${regionKey(region)}`;
  return {
    begin(asset, region, signal) {
      if (isBegun) return;
      isBegun = true;
      first = { key: keyOf(asset, region), codes: load(asset, region, signal) };
      first.codes.catch(() => undefined);
    },
    codes(asset, region, signal) {
      if (first?.key !== keyOf(asset, region)) return load(asset, region, signal);
      const { codes } = first;
      first = undefined;
      return codes.catch(() => load(asset, region, signal));
    },
  };
}
