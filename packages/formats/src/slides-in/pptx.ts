import type { RichText } from '@cuaderno/core';
import { isEastAsian } from '@cuaderno/core';
import { DeckError, lettersOf } from './deck.js';
import type { Deck, DeckMedia, Slide } from './deck.js';
import { all, attribute, children, first } from '../xml/index.js';
import { parsePart } from './part.js';
import type { Document, Element } from '../xml/index.js';

/** English Metric Units in a point: 914,400 to the inch (ECMA-376, part 1, 20.1.2.1 and 22.9.2.14). */
export const EMU = 914_400 / 72;
/** Units of an angle in a degree (ECMA-376, part 1, 20.1.10.3). */
const ANGLE = 60_000;

type PptxParts = ReadonlyMap<string, Uint8Array>;

interface Relation {
  readonly type: string;
  readonly target: string;
  /** Whether it lies outside the deck. */
  readonly outside: boolean;
}

/** Reads a presentation of ECMA-376. Throws `DeckError`. */
export function readPptx(parts: PptxParts): Deck {
  const main = 'ppt/presentation.xml';
  const presentation = parts.get(main);
  if (!presentation) throw new DeckError('broken');
  const doc = parsePart(presentation);
  const size = first(doc, 'sldSz');
  const relations = relationsOf(parts, main);
  const themes = new Themes(parts, targetOf(relations, 'theme'));
  const slides = all(doc, 'sldId').flatMap((entry) => {
    const relation = relations.get(idOf(entry));
    return relation && parts.has(relation.target) ? [slide(parts, relation.target, themes)] : [];
  });
  if (slides.length === 0) throw new DeckError('broken');
  return {
    width: Number(attribute(size, 'cx') ?? 9_144_000) / EMU,
    height: Number(attribute(size, 'cy') ?? 6_858_000) / EMU,
    slides,
  };
}

function slide(parts: PptxParts, path: string, themes: Themes): Slide {
  const doc = parsePart(parts.get(path)!);
  const relations = relationsOf(parts, path);
  const timing = first(doc, 'timing');
  const moving = timing !== null && all(timing, 'cTn').some((node) => isEffect(node));
  const notes = [...relations.values()].find(({ type }) => type.endsWith('/notesSlide'));
  return {
    title: titleOf(doc.documentElement!),
    notes:
      notes && parts.has(notes.target)
        ? notesOf(parsePart(parts.get(notes.target)!).documentElement!)
        : [],
    hidden: attribute(doc.documentElement, 'show') === '0',
    animated: moving || all(doc, 'transition').some(isMove),
    media: mediaOf(doc.documentElement!, relations),
    fonts: fontsOf(doc.documentElement!, themes.of(relations)),
    letters: lettersOf(wordsOn(doc.documentElement!)),
  };
}

/** Whether a node of the timeline is an effect, and not the play button of a film. */
function isEffect(node: Element): boolean {
  const kind = attribute(node, 'presetClass');
  return kind !== null && kind !== 'mediacall';
}

/** Whether a slide comes in moving: an entry without a kind of move, or with a sound alone, is none (19.3.1.50). */
function isMove(transition: Element): boolean {
  return children(transition).some(
    ({ localName }) => localName !== 'sndAc' && localName !== 'extLst',
  );
}

function wordsOn(slide: Element): string {
  return all(slide, 't')
    .map((run) => run.textContent ?? '')
    .join('');
}

function titleOf(slide: Element): string {
  for (const shape of all(slide, 'sp')) {
    const type = attribute(first(shape, 'ph'), 'type');
    if (type === 'title' || type === 'ctrTitle') return words(shape).replace(/\s+/g, ' ').trim();
  }
  return '';
}

function notesOf(notes: Element): RichText {
  const body = all(notes, 'sp').find((shape) => attribute(first(shape, 'ph'), 'type') === 'body');
  return body ? paragraphs(body) : [];
}

function words(shape: Element): string {
  return paragraphs(shape)
    .map(({ runs }) => runs.map(({ text }) => text).join(''))
    .join(' ');
}

function paragraphs(shape: Element): RichText {
  const list = all(shape, 'p').map((paragraph) => {
    const properties = first(paragraph, 'pPr');
    const dots = properties && first(properties, 'buChar') !== null;
    const numbers = properties && first(properties, 'buAutoNum') !== null;
    const runs = children(paragraph).flatMap((child) => {
      if (child.localName === 'br') return [{ text: ' ' }];
      if (child.localName !== 'r' && child.localName !== 'fld') return [];
      const text = first(child, 't')?.textContent ?? '';
      const look = first(child, 'rPr');
      const on = (name: string): boolean => ['1', 'true'].includes(attribute(look, name) ?? '');
      return text === ''
        ? []
        : [{ text, ...(on('b') ? { bold: true } : {}), ...(on('i') ? { slant: true } : {}) }];
    });
    return {
      ...(dots ? { list: 'dots' as const } : numbers ? { list: 'numbers' as const } : {}),
      runs,
    };
  });
  // Empty lines at the end say nothing.
  while (list.length > 0 && list.at(-1)!.runs.length === 0) list.pop();
  return list;
}

/** Where something lies, and how what is in it is laid out: maps of groups (20.1.7.5). */
interface Space {
  readonly x: number;
  readonly y: number;
  readonly scaleX: number;
  readonly scaleY: number;
}

function mediaOf(slide: Element, relations: ReadonlyMap<string, Relation>): DeckMedia[] {
  const found: DeckMedia[] = [];
  const walk = (parent: Element, space: Space): void => {
    for (const child of children(parent)) {
      if (child.localName === 'grpSp') walk(child, spaceIn(child, space));
      else if (child.localName === 'pic') {
        const media = mediaIn(child, relations, space);
        if (media) found.push(media);
      } else if (child.localName === 'AlternateContent') {
        // What a reader takes that knows only the standard.
        const choice = first(child, 'Choice') ?? first(child, 'Fallback');
        if (choice) walk(choice, space);
      }
    }
  };
  const tree = first(slide, 'spTree');
  if (tree) walk(tree, { x: 0, y: 0, scaleX: 1 / EMU, scaleY: 1 / EMU });
  return found;
}

function spaceIn(group: Element, outer: Space): Space {
  const transform = children(group).find(({ localName }) => localName === 'grpSpPr');
  const xfrm = transform && first(transform, 'xfrm');
  if (!xfrm) return outer;
  const n = (part: string, name: string): number => Number(attribute(first(xfrm, part), name) ?? 0);
  const scaleX = (outer.scaleX * n('ext', 'cx')) / (n('chExt', 'cx') || 1);
  const scaleY = (outer.scaleY * n('ext', 'cy')) / (n('chExt', 'cy') || 1);
  return {
    x: outer.x + n('off', 'x') * outer.scaleX - n('chOff', 'x') * scaleX,
    y: outer.y + n('off', 'y') * outer.scaleY - n('chOff', 'y') * scaleY,
    scaleX,
    scaleY,
  };
}

function mediaIn(
  picture: Element,
  relations: ReadonlyMap<string, Relation>,
  space: Space,
): DeckMedia | null {
  const about = first(picture, 'nvPr');
  const link =
    about &&
    (first(about, 'videoFile') ?? first(about, 'audioFile') ?? first(about, 'wavAudioFile'));
  if (!about || !link) return null;
  // Newer decks embed the file, and name it in an extension beside the older link.
  const embedded = first(about, 'media');
  const relation =
    relations.get(attribute(embedded, 'embed') ?? '') ??
    relations.get(attribute(link, 'link') ?? attribute(link, 'embed') ?? '');
  const xfrm = first(first(picture, 'spPr') ?? picture, 'xfrm');
  const n = (part: string, name: string): number =>
    Number(attribute(xfrm && first(xfrm, part), name) ?? 0);
  const poster = relations.get(attribute(first(picture, 'blip'), 'embed') ?? '');
  return {
    path: relation && !relation.outside ? relation.target : null,
    name:
      attribute(first(picture, 'cNvPr'), 'name') ||
      (relation?.target.replace(/^.*\//, '') ?? 'media'),
    frame: {
      x: space.x + n('off', 'x') * space.scaleX,
      y: space.y + n('off', 'y') * space.scaleY,
      width: n('ext', 'cx') * space.scaleX,
      height: n('ext', 'cy') * space.scaleY,
      turn: Number(attribute(xfrm, 'rot') ?? 0) / ANGLE,
    },
    poster: poster && !poster.outside ? poster.target : null,
  };
}

/** Fonts by name; `+mj-lt` and `+mn-lt` are the theme's for titles and for the rest (20.1.10.81). */
function fontsOf(slide: Element, theme: ReadonlyMap<string, string>): string[] {
  const names = new Set<string>();
  const isTitle = titleOf(slide) !== '';
  if (isTitle && theme.has('+mj-lt')) names.add(theme.get('+mj-lt')!);
  if (all(slide, 't').length > 0 && theme.has('+mn-lt')) names.add(theme.get('+mn-lt')!);
  // Fonts for East Asia are named beside the others whatever is written.
  const kinds = [...wordsOn(slide)].some(isEastAsian) ? ['latin', 'ea'] : ['latin'];
  for (const run of kinds.flatMap((kind) => all(slide, kind))) {
    const name = attribute(run, 'typeface');
    if (name) names.add(theme.get(name) ?? name);
  }
  return [...names].filter((name) => name !== '' && !name.startsWith('+'));
}

/** The fonts of themes: a slide's is the one of its master, which its layout names (13.3.8 to 13.3.10). */
class Themes {
  private readonly known = new Map<string, ReadonlyMap<string, string>>();

  /** @param other the presentation's own, for slides whose master names none */
  constructor(
    private readonly parts: PptxParts,
    private readonly other: string | null,
  ) {}

  of(slide: ReadonlyMap<string, Relation>): ReadonlyMap<string, string> {
    const layout = this.named(slide, 'slideLayout');
    const master = layout && this.named(relationsOf(this.parts, layout), 'slideMaster');
    const theme = master && this.named(relationsOf(this.parts, master), 'theme');
    const path = theme ?? this.other;
    if (!path || !this.parts.has(path)) return new Map();
    const fonts = this.known.get(path) ?? themeFonts(parsePart(this.parts.get(path)!));
    this.known.set(path, fonts);
    return fonts;
  }

  private named(relations: ReadonlyMap<string, Relation>, kind: string): string | null {
    const path = targetOf(relations, kind);
    return path !== null && this.parts.has(path) ? path : null;
  }
}

function targetOf(relations: ReadonlyMap<string, Relation>, kind: string): string | null {
  return [...relations.values()].find(({ type }) => type.endsWith(`/${kind}`))?.target ?? null;
}

/** Names that slides call a theme's fonts by, for titles and for the rest (20.1.10.81). */
const THEME_FONTS = [
  ['+mj-lt', 'majorFont', 'latin'],
  ['+mn-lt', 'minorFont', 'latin'],
  ['+mj-ea', 'majorFont', 'ea'],
  ['+mn-ea', 'minorFont', 'ea'],
] as const;

function themeFonts(theme: Document): ReadonlyMap<string, string> {
  const fonts = new Map<string, string>();
  for (const [key, name, kind] of THEME_FONTS) {
    const font = first(theme, name);
    const face = attribute(font && first(font, kind), 'typeface');
    if (face) fonts.set(key, face);
  }
  return fonts;
}

/** What a part names, by id (ECMA-376, part 2, 9.3). */
function relationsOf(parts: PptxParts, path: string): ReadonlyMap<string, Relation> {
  const at = path.lastIndexOf('/') + 1;
  const bytes = parts.get(`${path.slice(0, at)}_rels/${path.slice(at)}.rels`);
  const relations = new Map<string, Relation>();
  if (!bytes) return relations;
  for (const entry of all(parsePart(bytes), 'Relationship')) {
    const outside = attribute(entry, 'TargetMode') === 'External';
    const target = attribute(entry, 'Target') ?? '';
    relations.set(attribute(entry, 'Id') ?? '', {
      type: attribute(entry, 'Type') ?? '',
      target: outside ? target : resolved(path, target),
      outside,
    });
  }
  return relations;
}

/** `r:id` of an entry, which has an `id` of its own, too. */
function idOf(entry: Element): string {
  for (const attribute of entry.attributes)
    if (attribute.localName === 'id' && attribute.prefix) return attribute.value;
  return '';
}

/** The path that a part means by another, from its own. */
export function resolved(from: string, target: string): string {
  if (target.startsWith('/')) return target.slice(1);
  const steps = from.split('/').slice(0, -1);
  for (const step of target.split('/')) {
    if (step === '..') steps.pop();
    else if (step !== '.' && step !== '') steps.push(step);
  }
  return steps.join('/');
}
