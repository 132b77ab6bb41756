declare module 'heic-decode' {
  /** Decodes the first picture of a HEIC file: RGBA, as it is to be seen. Rejects what it can't read. */
  export default function decode(from: {
    readonly buffer: Uint8Array;
  }): Promise<{ width: number; height: number; data: Uint8ClampedArray }>;
}
