import type { Item } from '@cuaderno/core/board';
import { itemRenderItems } from './render-items';
import type { Pictures } from './pictures';
import { hasFont } from './text-fonts';

/** Longest that is waited for what is on a page, in ms. */
const PATIENCE = 20_000;

/** Resolves when fonts and pictures of these are here; what doesn't come in time is left out. */
export async function allHere(items: readonly Item[], pictures: Pictures): Promise<void> {
  const late = (): boolean =>
    items
      .filter((item) => item.kind !== 'ink')
      .flatMap((item) => itemRenderItems(item))
      // All of them are asked for, so that they come side by side.
      .filter(({ display }) => {
        if (display.kind === 'image') return pictures.get(display.file) === null;
        return (
          display.kind === 'text' && !hasFont(display, display.text, () => pictures.announce())
        );
      }).length > 0;
  if (!late()) return;
  await new Promise<void>((done) => {
    const end = (): void => {
      unwatch();
      clearTimeout(timer);
      done();
    };
    const unwatch = pictures.watch(() => {
      if (!late()) end();
    });
    const timer = setTimeout(end, PATIENCE);
  });
}
