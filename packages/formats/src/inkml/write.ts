import { decodeStroke, highlightColour, inkColour } from '@cuaderno/core';
import type { InkItem, InkStyle, Stroke } from '@cuaderno/core';

/** Pressure is told in so many steps: as fine as ink is kept. */
export const PRESSURE_STEPS = 127;

/** What is written of a page's ink besides its lines. */
export interface InkMlPage {
  /** In points. */
  readonly width: number;
  readonly height: number;
  /** What somebody is called; nothing is written about those who aren't. */
  readonly nameOf?: (id: string) => string | null;
}

/**
 * A page's ink as InkML (W3C Recommendation of 20 September 2011): places in points from the page's top left corner,
 * pressure, and milliseconds since each line began. The moment at which it was written is that of its context.
 */
export function writeInkMl(lines: readonly InkItem[], page: InkMlPage): string {
  const strokes = lines.map((item) => ({ item, stroke: decodeStroke(item.ink) }));
  const brushes = new Map<string, string>();
  for (const { stroke } of strokes) brushes.set(idOf(stroke.style), brushOf(stroke.style));
  const out = [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<ink xmlns="http://www.w3.org/2003/InkML">',
    `<annotation type="pageSize">${page.width} ${page.height}</annotation>`,
    '<definitions>',
    '<traceFormat xml:id="points">',
    '<channel name="X" type="decimal" units="pt"/><channel name="Y" type="decimal" units="pt"/>',
    `<channel name="F" type="integer" min="0" max="${PRESSURE_STEPS}" units="dev"/>`,
    '<channel name="T" type="integer" units="ms"/>',
    '</traceFormat>',
    '<context xml:id="page" traceFormatRef="#points"/>',
    ...brushes.values(),
    '</definitions>',
  ];
  let group = '';
  for (const { item, stroke } of strokes) {
    const author = page.nameOf?.(item.by) ?? '';
    const head = `${author} ${item.at}`;
    if (head !== group) {
      if (group !== '') out.push('</traceGroup>');
      group = head;
      out.push('<traceGroup contextRef="#page">');
      if (author) out.push(`<annotation type="author">${escape(author)}</annotation>`);
      out.push(`<annotation type="written">${new Date(item.at).toISOString()}</annotation>`);
    }
    out.push(`<trace brushRef="#${idOf(stroke.style)}">${traceOf(stroke)}</trace>`);
  }
  if (group !== '') out.push('</traceGroup>');
  out.push('</ink>');
  return `${out.join('\n')}\n`;
}

function traceOf({ points }: Stroke): string {
  return points
    .map(({ x, y, pressure, time }) => `${x} ${y} ${Math.round(pressure * PRESSURE_STEPS)} ${time}`)
    .join(',');
}

function idOf({ tool, ink, width }: InkStyle): string {
  return `${tool}-${ink}-${String(width).replace('.', '_')}`;
}

function brushOf(style: InkStyle): string {
  const colour = style.tool === 'pen' ? inkColour(style.ink) : highlightColour(style.ink);
  const operation = style.tool === 'pen' ? 'copyPen' : 'maskPen';
  return (
    `<brush xml:id="${idOf(style)}">` +
    `<brushProperty name="width" value="${style.width}" units="pt"/>` +
    `<brushProperty name="height" value="${style.width}" units="pt"/>` +
    `<brushProperty name="color" value="${colour}"/>` +
    '<brushProperty name="tip" value="ellipse"/>' +
    `<brushProperty name="rasterOp" value="${operation}"/></brush>`
  );
}

function escape(text: string): string {
  return text.replace(/[<>&]/g, (sign) => `&#${sign.charCodeAt(0)};`);
}
