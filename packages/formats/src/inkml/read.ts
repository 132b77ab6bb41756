import { lightness, MAX_POINTS, nearestHighlight, nearestInk, NO_PRESSURE } from '@cuaderno/core';
import type { InkPoint, InkStyle, Stroke } from '@cuaderno/core';
import { parseXml } from '../xml/index.js';
import type { Element } from '../xml/index.js';
import { readTraceData } from './trace-data.js';

/** Points that are read of a file at most: more than a hundred pages have. */
const MOST = 1_000_000;
/** Tags that are read of a file at most: each becomes an element before anything is known of it. */
const MOST_TAGS = 1_000_000;
/** Milliseconds from one point to the next, where nobody says how fast it was drawn. */
const PACE = 10;
const USUAL_WIDTH = 1.8;

/** Points in a unit of length (InkML, 3.1.2, units of the standard). */
const UNITS: Readonly<Record<string, number>> = {
  m: 7200 / 2.54,
  cm: 72 / 2.54,
  mm: 7.2 / 2.54,
  in: 72,
  pt: 1,
  pc: 12,
};

export class InkMlError extends Error {
  override readonly name = 'InkMlError';
  constructor(readonly fault: 'not-inkml' | 'too-much' | 'no-ink') {
    super(fault);
  }
}

/** Ink as a file has it. */
export interface InkMl {
  /** In points, if `sized`; else in units of which nobody knows how long they are. */
  readonly strokes: readonly Stroke[];
  readonly sized: boolean;
}

interface Channel {
  readonly name: string;
  readonly units: string;
  readonly min: number | null;
  readonly max: number | null;
}

interface Brush {
  width?: number;
  colour?: string;
  transparency?: number;
  marks?: boolean;
}

interface Setting {
  readonly format: readonly Channel[] | null;
  readonly brush: Brush | null;
}

const plain = (name: string): Channel => ({ name, units: 'dev', min: null, max: null });
/** Where a file says nothing of its channels (3.1.1). */
const USUAL: readonly Channel[] = [plain('X'), plain('Y')];

/**
 * Reads ink (InkML, W3C Recommendation of 20 September 2011): traces with their formats, brushes and contexts, also
 * as they change on the way. Throws `InkMlError`; a file of millions of points is given up before it is taken apart.
 */
export function readInkMl(text: string): InkMl {
  // Points are told apart by commas, or stand in a trace of their own.
  if (hasMoreThan(MOST, ',', text) || hasMoreThan(MOST_TAGS, '<', text))
    throw new InkMlError('too-much');
  const reader = new Reader();
  try {
    const { documentElement } = parseXml(text);
    if (documentElement) read(documentElement, reader);
  } catch (error) {
    throw error instanceof InkMlError ? error : new InkMlError('not-inkml');
  }
  return reader.done();
}

function hasMoreThan(most: number, letter: string, text: string): boolean {
  let left = most;
  for (let at = text.indexOf(letter); at >= 0; at = text.indexOf(letter, at + 1))
    if (left-- === 0) return true;
  return false;
}

/** Has a reader go through an element and all in it, in order; elements may lie as deep as they like. */
function read(root: Element, reader: Reader): void {
  reader.open(root);
  let node = root.firstChild;
  let within: Element = root;
  for (;;) {
    if (node?.nodeType === 1) {
      within = node as Element;
      reader.open(within);
      node = within.firstChild;
      continue;
    }
    if (node) {
      if (node.nodeType === 3 || node.nodeType === 4) reader.text(node.nodeValue ?? '');
      node = node.nextSibling;
      continue;
    }
    reader.close(within);
    if (within === root) return;
    node = within.nextSibling;
    within = within.parentNode as Element;
  }
}

class Reader {
  private isInk = false;
  private readonly formats = new Map<string, readonly Channel[]>();
  private readonly brushes = new Map<string, Brush>();
  private readonly contexts = new Map<string, Setting>();
  /** What holds where we are: of the file, of groups within it, of a trace. */
  private readonly settings: Setting[] = [{ format: null, brush: null }];
  private format: { id: string; channels: Channel[] } | null = null;
  private brush: { id: string; brush: Brush } | null = null;
  private context: {
    id: string;
    setting: { format: readonly Channel[] | null; brush: Brush | null };
  } | null = null;
  /** Points in a unit of a device, by channel, where its resolution is told. */
  private readonly resolution = new Map<string, number>();
  private trace: { text: string; setting: Setting; skip: boolean } | null = null;
  /** Whether we are among definitions, which hold only where something refers to them. */
  private defining = false;
  private readonly strokes: Stroke[] = [];
  private sized = true;

  open(element: Element): void {
    const attribute = (name: string): string => element.getAttribute(name) ?? '';
    const id = attribute('xml:id') || attribute('id');
    switch (element.localName) {
      case 'ink':
        this.isInk = true;
        break;
      case 'definitions':
        this.defining = true;
        break;
      case 'traceFormat':
        this.format = { id, channels: [] };
        break;
      case 'channel':
        this.format?.channels.push({
          name: attribute('name'),
          units: attribute('units') || 'dev',
          min: numberOrNull(attribute('min')),
          max: numberOrNull(attribute('max')),
        });
        break;
      case 'channelProperty':
        this.measure(
          attribute('channel'),
          attribute('name'),
          attribute('value'),
          attribute('units'),
        );
        break;
      case 'brush':
        this.brush = { id, brush: {} };
        break;
      case 'brushProperty':
        if (this.brush)
          property(this.brush.brush, attribute('name'), attribute('value'), attribute('units'));
        break;
      case 'context':
        this.context = { id, setting: { ...this.setting(attribute) } };
        break;
      case 'traceGroup':
        this.settings.push(this.setting(attribute));
        break;
      case 'trace':
        this.trace = {
          text: '',
          setting: this.setting(attribute),
          // What a pen did over the paper leaves no ink.
          skip: attribute('type') === 'penUp',
        };
        break;
    }
  }

  close({ localName }: Element): void {
    switch (localName) {
      case 'traceFormat':
        this.endFormat();
        break;
      case 'brush':
        this.endBrush();
        break;
      case 'context':
        if (this.context) {
          const { id, setting } = this.context;
          if (id) this.contexts.set(id, setting);
          // One that isn't only defined holds from here on (4.3.1).
          if (!this.defining) this.settings[this.settings.length - 1] = setting;
        }
        this.context = null;
        break;
      case 'traceGroup':
        if (this.settings.length > 1) this.settings.pop();
        break;
      case 'trace':
        this.endTrace();
        break;
      case 'definitions':
        this.defining = false;
        break;
    }
  }

  text(words: string): void {
    if (this.trace) this.trace.text += words;
  }

  done(): InkMl {
    if (!this.isInk) throw new InkMlError('not-inkml');
    if (this.strokes.length === 0) throw new InkMlError('no-ink');
    return { strokes: this.strokes, sized: this.sized };
  }

  /** What holds for something with these attributes. */
  private setting(attribute: (name: string) => string): Setting {
    const around = this.settings[this.settings.length - 1]!;
    const context = this.contexts.get(ref(attribute('contextRef')));
    const format = this.formats.get(ref(attribute('traceFormatRef')));
    const brush = this.brushes.get(ref(attribute('brushRef')));
    return {
      format: format ?? context?.format ?? around.format,
      brush: brush ?? context?.brush ?? around.brush,
    };
  }

  private endFormat(): void {
    if (!this.format) return;
    const { id, channels } = this.format;
    if (id) this.formats.set(id, channels);
    if (this.context) this.context.setting.format = channels;
    else if (!this.defining)
      this.settings[this.settings.length - 1] = {
        ...this.settings[this.settings.length - 1]!,
        format: channels,
      };
    this.format = null;
  }

  private endBrush(): void {
    if (!this.brush) return;
    const { id, brush } = this.brush;
    if (id) this.brushes.set(id, brush);
    if (this.context) this.context.setting.brush = brush;
    this.brush = null;
  }

  private endTrace(): void {
    const trace = this.trace;
    this.trace = null;
    if (!trace || trace.skip) return;
    const channels = trace.setting.format ?? USUAL;
    const of = (name: string): number => channels.findIndex((channel) => channel.name === name);
    const [x, y, force, time] = [of('X'), of('Y'), of('F'), of('T')];
    if (x < 0 || y < 0) return;
    const scale = [x, y].map((n) => this.scaleOf(channels[n]!));
    if (scale.some((one) => one === null)) this.sized = false;
    const values = readTraceData(trace.text, channels.length);
    if (values.length === 0) return;
    const start = time >= 0 ? values[0]![time]! : 0;
    const pace = time >= 0 && channels[time]!.units === 's' ? 1000 : 1;
    let before = 0;
    const points = values.map((one, i): InkPoint => {
      before = Math.max(before, time >= 0 ? Math.round((one[time]! - start) * pace) : i * PACE);
      return {
        x: one[x]! * (scale[0] ?? 1),
        y: one[y]! * (scale[1] ?? 1),
        pressure: force >= 0 ? pressureOf(one[force]!, channels[force]!) : NO_PRESSURE,
        time: before,
      };
    });
    const style = styleOf(trace.setting.brush);
    for (let from = 0; from === 0 || from < points.length - 1; from += MAX_POINTS - 1)
      this.strokes.push({ style, points: points.slice(from, from + MAX_POINTS) });
  }

  private measure(channel: string, name: string, value: string, units: string): void {
    const number = Number(value);
    const unit = UNITS[units.replace(/^1\//, '')];
    if (name === 'resolution' && unit && units.startsWith('1/') && number > 0)
      this.resolution.set(channel, unit / number);
  }

  /** Points in a channel's unit; `null` where nobody knows. */
  private scaleOf({ name, units }: Channel): number | null {
    return UNITS[units] ?? this.resolution.get(name) ?? null;
  }
}

function ref(text: string): string {
  return text.replace(/^#/, '');
}

function numberOrNull(text: string): number | null {
  const number = Number(text);
  return text.trim() !== '' && Number.isFinite(number) ? number : null;
}

function pressureOf(value: number, { min, max }: Channel): number {
  const [low, high] = [min ?? 0, max ?? 1];
  return high > low ? Math.min(1, Math.max(0, (value - low) / (high - low))) : NO_PRESSURE;
}

function property(brush: Brush, name: string, value: string, units: string): void {
  const number = Number(value);
  if (name === 'width' && number > 0) brush.width = number * (UNITS[units] ?? 1);
  if (name === 'color' && /^#[0-9a-f]{6}$/i.test(value)) brush.colour = value.toLowerCase();
  if (name === 'transparency' && number >= 0) brush.transparency = number;
  if (name === 'rasterOp') brush.marks = value === 'maskPen';
}

function styleOf(brush: Brush | null): InkStyle {
  const { width = USUAL_WIDTH, colour = '#22242a', transparency = 0, marks } = brush ?? {};
  const rgb = [1, 3, 5].map((i) => parseInt(colour.slice(i, i + 2), 16) / 255) as [
    number,
    number,
    number,
  ];
  const wide = Math.min(100, Math.max(0.3, width));
  const highlights = marks ?? (transparency > 64 || (wide >= 6 && lightness(rgb) > 0.8));
  return highlights
    ? { tool: 'highlighter', ink: nearestHighlight(rgb), width: wide }
    : { tool: 'pen', ink: nearestInk(rgb), width: wide };
}
