import type { Item, Page } from '@cuaderno/core/board';
import type { PaperSource } from '../drawing/paper-source';
import { itemsPng, pagePng } from './page-image';
import { itemsAsSvg, pageAsSvg } from './page-svg';

const SVG = 'image/svg+xml';

/** Why the clipboard takes no picture, and what to do about it. */
export function whyNotCopied(): string {
  return isSecureContext
    ? 'Press the button once more, or save the page as a file.'
    : 'Without https browsers take no pictures there: save the page as a file.';
}

/** Puts a page on the clipboard as a picture: PNG, and SVG where the browser takes it. */
export function copyPage(page: Page, papers: PaperSource, ink: boolean): Promise<void> {
  return put(
    () => pagePng(page, papers, { ink }),
    () => pageAsSvg(page, papers, { ink }, true),
  );
}

/** Puts items on the clipboard as a picture. */
export function copyItemsAsPicture(items: readonly Item[], papers: PaperSource): Promise<void> {
  return put(
    () => itemsPng(items, papers),
    () => itemsAsSvg(items),
  );
}

async function put(png: () => Promise<Blob>, svg: () => Promise<string>): Promise<void> {
  // Promises, so that it is still the press of a button that asks for the clipboard.
  const forms: Record<string, Promise<Blob>> = { 'image/png': png() };
  if (ClipboardItem.supports?.(SVG))
    forms[SVG] = svg().then((text) => new Blob([text], { type: SVG }));
  await navigator.clipboard.write([new ClipboardItem(forms)]);
}
