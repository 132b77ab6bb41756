import type { PDFDict } from '@cantoo/pdf-lib';
import { bytesOf, nameOf } from './values.js';

/** What an address may begin with. */
const ADDRESS = /^(https?|mailto|tel):/i;

/** The address that an action opens, on the web or of somebody; `null` for any other (ISO 32000-1, 12.6.4.7). */
export function addressOf(action: PDFDict | null): string | null {
  const bytes = action && nameOf(action, 'S') === 'URI' ? bytesOf(action, 'URI') : null;
  const address = bytes && new TextDecoder('latin1').decode(bytes);
  return address && ADDRESS.test(address) ? address : null;
}
