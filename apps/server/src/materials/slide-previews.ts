import type { Id } from '@cuaderno/core';
import { createReadStream } from 'node:fs';
import type { Imports } from '../pdf-imports/import.js';
import type { FileStore } from '../files/store.js';
import type { Office } from '../slides/office.js';
import type { ImportQueue } from '../slides/queue.js';
import type { SlideImports } from '../slides/slide-imports.js';
import type { DeckReader } from '../slides/deck-reader.js';
import type { Materials } from './service.js';
import type { AssetRow } from './shelf.js';

/** How slides stand that are to be looked at. */
export type SlideState = 'ready' | 'coming' | 'never';

/** Turns slides into pages to be looked at, when someone first wants to. */
export class SlidePreviews {
  private readonly states = new Map<Id, 'coming' | 'never'>();

  constructor(
    private readonly parts: {
      readonly materials: Materials;
      readonly imports: Imports;
      readonly slides: SlideImports;
      readonly queue: ImportQueue;
      readonly office: Office;
      readonly store: FileStore;
      readonly decks: DeckReader;
    },
    private readonly maxUploadBytes: number,
  ) {}

  /** Says how far they are, and begins where nobody has. */
  wanted(asset: AssetRow): SlideState {
    if (asset.kind !== 'slides' || asset.preview) return 'ready';
    const state = this.states.get(asset.id);
    if (state) return state;
    this.states.set(asset.id, 'coming');
    this.parts.queue.add(asset.tutor, async (_news, signal) => {
      try {
        await this.make(asset, signal);
        this.states.delete(asset.id);
      } catch (error) {
        // A deck that can't be turned into pages is not tried again until the next start.
        this.states.set(asset.id, 'never');
        throw error;
      }
    });
    return 'coming';
  }

  private async make(asset: AssetRow, signal: AbortSignal): Promise<void> {
    const { materials, imports, slides, office, store, decks } = this.parts;
    const path = store.path(asset.file);
    const deck = await slides.kindOf({ hash: asset.file, bytes: 0, path }, this.maxUploadBytes);
    if (!deck) throw new Error('These are no slides.');
    await office.convert(path, deck, 'pdf', signal, async (result) => {
      await decks.stripPdf(result);
      const { hash, bytes, path: kept } = await store.put(createReadStream(result), Infinity);
      const preview = { hash, bytes, type: 'application/pdf' };
      await materials.setPreview(asset, preview, await imports.count(kept));
    });
  }
}
