import type { RichText } from '@cuaderno/core';
import { DeckError, lettersOf } from './deck.js';
import type { Deck, DeckMedia, Slide } from './deck.js';
import { all, attribute, children, first } from '../xml/index.js';
import { parsePart } from './part.js';
import type { Element } from '../xml/index.js';

type OdpParts = ReadonlyMap<string, Uint8Array>;

/** Points in the units of lengths (OpenDocument 1.3, part 3, 18.3.18; XSL 1.1, 5.9.13). */
const UNITS: Readonly<Record<string, number>> = {
  pt: 1,
  in: 72,
  cm: 72 / 2.54,
  mm: 72 / 25.4,
  pc: 12,
  px: 0.75,
};

/** A length as OpenDocument writes it, in points: `2.54cm` is 72. What isn't one is 0. */
export function points(length: string | null): number {
  const [, number, unit] = /^\s*(-?[\d.]+)\s*([a-z]+)\s*$/i.exec(length ?? '') ?? [];
  return number === undefined ? 0 : Number(number) * (UNITS[unit!.toLowerCase()] ?? 0);
}

/** Reads a presentation of OpenDocument. Throws `DeckError`. */
export function readOdp(parts: OdpParts): Deck {
  const manifest = parts.get('META-INF/manifest.xml');
  if (manifest && first(parsePart(manifest), 'encryption-data')) throw new DeckError('locked');
  const content = parts.get('content.xml');
  if (!content) throw new DeckError('broken');
  const doc = parsePart(content);
  const presentation = first(doc, 'presentation');
  if (!presentation) throw new DeckError('broken');
  const styles = parts.has('styles.xml') ? parsePart(parts.get('styles.xml')!) : null;
  const layout = styles && first(styles, 'page-layout-properties');
  const looks = new Map(all(doc, 'style').map((style) => [attribute(style, 'name') ?? '', style]));
  const faces = new Map(
    all(doc, 'font-face').map((face) => [
      attribute(face, 'name') ?? '',
      (attribute(face, 'font-family') ?? '').replace(/['"]/g, ''),
    ]),
  );
  const slides = children(presentation)
    .filter(({ localName }) => localName === 'page')
    .map((page) => slide(page, looks, faces));
  if (slides.length === 0) throw new DeckError('broken');
  return {
    width: points(attribute(layout, 'page-width')),
    height: points(attribute(layout, 'page-height')),
    slides,
  };
}

function slide(
  page: Element,
  looks: ReadonlyMap<string, Element>,
  faces: ReadonlyMap<string, string>,
): Slide {
  const look = looks.get(attribute(page, 'style-name') ?? '');
  const drawing = look && first(look, 'drawing-page-properties');
  const notes = children(page).find(({ localName }) => localName === 'notes');
  const frames = all(page, 'frame').filter((frame) => !notes || !isWithin(frame, notes));
  const title = frames.find((frame) => attribute(frame, 'class') === 'title');
  const noted = notes && all(notes, 'frame').find((frame) => attribute(frame, 'class') === 'notes');
  const kind = attribute(drawing ?? null, 'transition-type') ?? 'none';
  const style =
    attribute(drawing ?? null, 'transition-style') ?? attribute(drawing ?? null, 'type');
  return {
    title: title ? plain(title) : '',
    notes: noted ? paragraphs(noted) : [],
    hidden: attribute(drawing ?? null, 'visibility') === 'hidden',
    animated:
      (style !== null && style !== 'none' && kind !== 'none') ||
      all(page, 'par').some((node) => attribute(node, 'preset-class') !== null),
    media: frames.flatMap((frame) => mediaIn(frame) ?? []),
    fonts: fontsOf(page, looks, faces),
    letters: lettersOf(
      frames.map((frame) => wordsOf(frame)).join('') +
        all(page, 'custom-shape')
          .map((shape) => wordsOf(shape))
          .join(''),
    ),
  };
}

function isWithin(node: Element, ancestor: Element): boolean {
  for (let at = node.parentNode; at; at = at.parentNode) if (at === ancestor) return true;
  return false;
}

function plain(frame: Element): string {
  return all(frame, 'p')
    .map((paragraph) => wordsOf(paragraph))
    .join(' ')
    .replace(/\s+/g, ' ')
    .trim();
}

/** Words of a paragraph: runs of spaces, tabs and breaks are elements of their own (part 3, 6.1.3). */
function wordsOf(node: Element): string {
  let text = '';
  for (const child of node.childNodes) {
    if (child.nodeType === 3) text += child.nodeValue ?? '';
    else if (child.nodeType === 1) {
      const element = child as Element;
      if (element.localName === 's') text += ' '.repeat(Number(attribute(element, 'c') ?? 1));
      else if (element.localName === 'tab' || element.localName === 'line-break') text += ' ';
      else text += wordsOf(element);
    }
  }
  return text;
}

function paragraphs(frame: Element): RichText {
  const list = all(frame, 'p').map((paragraph) => {
    const text = wordsOf(paragraph);
    const inList = (paragraph.parentNode as Element | null)?.localName === 'list-item';
    return { ...(inList ? { list: 'dots' as const } : {}), runs: text ? [{ text }] : [] };
  });
  while (list.length > 0 && list.at(-1)!.runs.length === 0) list.pop();
  return list;
}

const MEDIA = 'application/vnd.sun.star.media';

function mediaIn(frame: Element): DeckMedia | null {
  const plugin = first(frame, 'plugin');
  if (!plugin || attribute(plugin, 'mime-type') !== MEDIA) return null;
  const href = attribute(plugin, 'href') ?? '';
  const inside = !/^[a-z]+:/i.test(href);
  const path = href.replace(/^\.\//, '');
  const picture = first(frame, 'image');
  return {
    path: inside ? path : null,
    name: attribute(frame, 'name') || path.replace(/^.*\//, '') || 'media',
    frame: {
      x: points(attribute(frame, 'x')),
      y: points(attribute(frame, 'y')),
      width: points(attribute(frame, 'width')),
      height: points(attribute(frame, 'height')),
      turn: 0,
    },
    poster: picture ? (attribute(picture, 'href') ?? '').replace(/^\.\//, '') || null : null,
  };
}

/** Fonts that the styles on a page ask for. */
function fontsOf(
  page: Element,
  looks: ReadonlyMap<string, Element>,
  faces: ReadonlyMap<string, string>,
): string[] {
  const names = new Set<string>();
  for (const kind of ['p', 'span', 'frame', 'custom-shape'])
    for (const node of all(page, kind))
      for (const key of ['style-name', 'text-style-name']) {
        const look = looks.get(attribute(node, key) ?? '');
        const properties = look && first(look, 'text-properties');
        const name =
          faces.get(attribute(properties ?? null, 'font-name') ?? '') ??
          attribute(properties ?? null, 'font-family');
        // A theme's font that kept its name there (ECMA-376, 20.1.10.81) is none by that name.
        if (name && !name.startsWith('+')) names.add(name.replace(/['"]/g, ''));
      }
  return [...names];
}
