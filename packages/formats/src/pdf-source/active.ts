import { PDFName } from '@cantoo/pdf-lib';
import type { PDFDict, PDFDocument } from '@cantoo/pdf-lib';
import { addressOf } from './address.js';
import { drawIn } from './draw-in.js';
import { fieldsOf } from './fields.js';
import { outlineEntries } from './outline.js';
import { dictOf, dictsIn, nameOf, removeFrom } from './values.js';

/** Of a file as a whole: what it does when it is opened, files that are attached to it, and who vouches for it. */
const OF_THE_FILE = ['OpenAction', 'AA', 'AF', 'Collection', 'Perms', 'Requirements', 'Threads'];
/** Annotations that hold a file, a sound, a film or a model of their own. */
const HOLDERS = ['FileAttachment', 'Sound', 'Movie', 'Screen', 'RichMedia', '3D'];
/** Those of which only a sign is seen. */
const UNSEEN = ['FileAttachment', 'Sound', 'Popup'];
/** Where `Named` actions may go (ISO 32000-1, table 211). */
const PLACES = ['NextPage', 'PrevPage', 'FirstPage', 'LastPage'];

/**
 * Takes out of a brought PDF what acts by itself and what is attached to it: scripts, what happens when it is opened,
 * programs and files that it would open, attached files, sounds and films. Links to places in it and to the web stay.
 * @returns whether there was any of it
 */
export function dropActive(doc: PDFDocument): boolean {
  const { catalog } = doc;
  let found = 0;
  const drop = (dict: PDFDict, key: string): void => {
    if (dict.delete(PDFName.of(key))) found++;
  };
  /** An action that isn't harmless goes; one that is does nothing besides. */
  const dropAction = (dict: PDFDict): void => {
    drop(dict, 'AA');
    if (!dict.has(PDFName.of('A'))) return;
    const action = dictOf(dict, 'A');
    if (!action || !isHarmless(action)) drop(dict, 'A');
    else drop(action, 'Next');
  };
  for (const key of OF_THE_FILE) drop(catalog, key);
  const names = dictOf(catalog, 'Names');
  // Names of places are needed by links.
  for (const key of names?.keys() ?? [])
    if (key.decodeText() !== 'Dests') drop(names!, key.decodeText());
  const form = dictOf(catalog, 'AcroForm');
  if (form) {
    drop(form, 'XFA');
    drop(form, 'CO');
  }
  for (const field of fieldsOf(doc)) dropAction(field);
  for (const entry of outlineEntries(catalog)) dropAction(entry);
  for (const page of doc.getPages()) {
    const { node } = page;
    drop(node, 'AA');
    drop(node, 'AF');
    const list = node.Annots();
    if (!list) continue;
    const holders = new Set<PDFDict>();
    for (const annotation of dictsIn(list)) {
      dropAction(annotation);
      drop(annotation, 'AF');
      if (HOLDERS.includes(nameOf(annotation, 'Subtype') ?? '')) holders.add(annotation);
    }
    found += holders.size;
    for (const annotation of dictsIn(list)) {
      const parent = dictOf(annotation, 'Parent');
      if (parent && holders.has(parent)) holders.add(annotation);
    }
    // What is seen of a film or a model stays: its picture, as part of the page.
    const seen = new Set(
      [...holders].filter((one) => !UNSEEN.includes(nameOf(one, 'Subtype') ?? '')),
    );
    drawIn(page, seen);
    if (holders.size > 0) removeFrom(list, holders);
  }
  return found > 0;
}

function isHarmless(action: PDFDict): boolean {
  switch (nameOf(action, 'S')) {
    case 'GoTo':
      return true;
    case 'URI':
      return addressOf(action) !== null;
    case 'Named':
      return PLACES.includes(nameOf(action, 'N') ?? '');
    default:
      return false;
  }
}
