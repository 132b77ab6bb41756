import { PDFArray, PDFName } from '@cantoo/pdf-lib';
import type { PDFDocument, PDFObject, PDFObjectCopier, PDFDict } from '@cantoo/pdf-lib';
import { arrayOf, dictOf, nameOf } from './values.js';

/**
 * Takes a file's layers along (ISO 32000-1, 8.11.4), so that what one can't see at first isn't seen in the copy
 * either. `copier` is the one by which its pages were copied.
 */
export function copyLayers(
  source: PDFDocument,
  target: PDFDocument,
  copier: PDFObjectCopier,
): void {
  const layers = dictOf(source.catalog, 'OCProperties');
  const all = layers && arrayOf(layers, 'OCGs');
  if (!layers || !all) return;
  const first = dictOf(layers, 'D');
  const { context, catalog } = target;
  let ours = dictOf(catalog, 'OCProperties');
  if (!ours) {
    ours = context.obj({ OCGs: [], D: { OFF: [], Order: [] } });
    catalog.set(PDFName.of('OCProperties'), ours);
  }
  const config = dictOf(ours, 'D')!;
  const add = (list: PDFDict, key: string, refs: readonly PDFObject[]): void => {
    const array = arrayOf(list, key) ?? PDFArray.withContext(context);
    for (const ref of refs) array.push(copier.copy(ref));
    list.set(PDFName.of(key), array);
  };
  add(ours, 'OCGs', all.asArray());
  const named = (key: string): PDFObject[] => (first ? (arrayOf(first, key)?.asArray() ?? []) : []);
  const on = new Set(named('ON'));
  const off =
    first && nameOf(first, 'BaseState') === 'OFF'
      ? all.asArray().filter((ref) => !on.has(ref))
      : named('OFF');
  add(config, 'OFF', off);
  add(config, 'Order', named('Order'));
}
