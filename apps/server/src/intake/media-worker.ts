import { MediaError, readMedia } from '@cuaderno/formats/media-in';
import type { MediaFacts, MediaFault } from '@cuaderno/formats/media-in';
import { FilePathSource } from 'mediabunny';

export type MediaNews =
  | ({ readonly kind: 'media' } & MediaFacts)
  | { readonly kind: 'fault'; readonly fault: MediaFault };

/** Reads what a stored sound or film holds; see `readMedia`. */
export async function inspectMedia({ path }: { readonly path: string }): Promise<MediaNews> {
  try {
    const source = new FilePathSource(path, { handleUnhandledError: () => undefined });
    return { kind: 'media', ...(await readMedia(source)) };
  } catch (error) {
    if (!(error instanceof MediaError)) throw error;
    return { kind: 'fault', fault: error.fault };
  }
}
