declare module 'libraw-wasm/dist/libraw.js' {
  interface RawImage {
    width: number;
    height: number;
    colors: number;
    data: Uint16Array;
  }
  interface LibRaw {
    open: (file: Uint8Array, settings: object) => void;
    imageData: () => RawImage | undefined;
  }
  const libraw: (options: { wasmBinary: Uint8Array }) => Promise<{ LibRaw: new () => LibRaw }>;
  export default libraw;
}

declare module 'lcms-wasm' {
  interface Lcms {
    /** 0 for what is no profile. */
    cmsOpenProfileFromMem: (bytes: Uint8Array, length: number) => number;
    cmsCreate_sRGBProfile: () => number;
    cmsCreateXYZProfile: () => number;
    cmsGetColorSpaceASCII: (profile: number) => string | null;
    /** 0 for profiles that do not fit their formats. */
    cmsCreateTransform: (
      from: number,
      fromFormat: number,
      to: number,
      toFormat: number,
      intent: number,
      flags: number,
    ) => number;
    cmsDoTransform: (
      transform: number,
      codes: Uint8Array | Uint16Array | Float32Array,
      pixels: number,
    ) => Uint16Array | Float32Array;
  }
  export const TYPE_RGB_8: number;
  export const TYPE_RGB_16: number;
  export const INTENT_RELATIVE_COLORIMETRIC: number;
  export const cmsFLAGS_NOCACHE: number;
  export const instantiate: () => Promise<Lcms>;
}
