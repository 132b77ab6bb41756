import {
  DeckError,
  deckKind,
  fontsUsed,
  partsOf,
  readDeck,
  withoutMedia,
  withoutOutside,
} from '@cuaderno/formats/slides-in';
import type { Deck, DeckFault, DeckKind } from '@cuaderno/formats/slides-in';
import { randomUUID } from 'node:crypto';
import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';

export interface DeckTask {
  readonly path: string;
  /** Where its sounds, films and their pictures are laid down. */
  readonly folder: string;
  /** Of all that is in it when it is unpacked, in bytes. */
  readonly maxBytes: number;
}

export type DeckNews =
  | { readonly kind: 'kind'; readonly is: DeckKind | null }
  | {
      readonly kind: 'deck';
      readonly deck: Deck;
      /** Where its sounds, films and pictures of them lie now, by their paths in it. */
      readonly files: ReadonlyMap<string, string>;
    }
  | { readonly kind: 'closed'; readonly place: string }
  | { readonly kind: 'fault'; readonly fault: DeckFault };

const MAX_ENTRIES = 20_000;

async function told(work: () => Promise<DeckNews>): Promise<DeckNews> {
  try {
    return await work();
  } catch (error) {
    if (!(error instanceof DeckError)) throw error;
    return { kind: 'fault', fault: error.fault };
  }
}

export interface CloseDeckTask extends DeckTask {
  readonly kind: DeckKind;
}

/** Lays down the deck without what lies outside of it; see `withoutOutside`. */
export function closeDeck({ path, folder, maxBytes, kind }: CloseDeckTask): Promise<DeckNews> {
  return told(async () => {
    const limits = { bytes: maxBytes, entries: MAX_ENTRIES };
    const place = join(folder, randomUUID());
    await writeFile(place, withoutOutside(new Uint8Array(await readFile(path)), kind, limits));
    return { kind: 'closed', place };
  });
}

/** What kind of deck a file is. */
export function sniffDeck({ path, maxBytes }: Omit<DeckTask, 'folder'>): Promise<DeckNews> {
  return told(async () => {
    const limits = { bytes: maxBytes, entries: MAX_ENTRIES };
    return { kind: 'kind', is: deckKind(new Uint8Array(await readFile(path)), limits) };
  });
}

/** Reads what converting a deck loses. */
export function openDeck({ path, folder, maxBytes }: DeckTask): Promise<DeckNews> {
  return told(async () => {
    const bytes = new Uint8Array(await readFile(path));
    const limits = { bytes: maxBytes, entries: MAX_ENTRIES };
    const kind = deckKind(bytes, limits);
    if (kind !== 'pptx' && kind !== 'odp') throw new DeckError('broken');
    const deck = readDeck(bytes, kind, limits);
    const wanted = new Set(
      deck.slides.flatMap(({ media }) => media.flatMap((one) => [one.path, one.poster])),
    );
    const files = new Map<string, string>();
    for (const [path, content] of partsOf(bytes, limits, (name) => wanted.has(name))) {
      const place = join(folder, randomUUID());
      await writeFile(place, content);
      files.set(path, place);
    }
    return { kind: 'deck', deck, files };
  });
}

/** Fonts that each page of a PDF is drawn with. */
export async function fontsOfPdf({ path }: { readonly path: string }): Promise<string[][]> {
  return fontsUsed(new Uint8Array(await readFile(path)));
}

/** Takes sounds and films out of a PDF, where it lies. */
export async function stripPdf({ path }: { readonly path: string }): Promise<void> {
  await writeFile(path, await withoutMedia(new Uint8Array(await readFile(path))));
}
