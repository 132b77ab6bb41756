import { PDFArray, PDFName } from '@cantoo/pdf-lib';
import type { PDFDocument, PDFImage, PDFPage, PDFRef } from '@cantoo/pdf-lib';
import { drawStroke, drawItem, InkColumns, readStroke } from '@cuaderno/core';
import type { FileHash, Item, Matrix } from '@cuaderno/core';
import { MULTIPLY } from '../pdf-content/content-writer.js';
import type { ContentWriter } from '../pdf-content/content-writer.js';
import { sealOf } from './annotation.js';
import { codeOf, rectCode } from './code.js';
import { describe } from './describe.js';
import { OWN, packOwn } from './own.js';
import { WrittenDict, WrittenStream } from './written-objects.js';

/** Shorter content isn't worth compressing. */
const SHORT = 200;

export interface AnnotationWriting {
  readonly writer: ContentWriter;
  readonly pictures: ReadonlyMap<FileHash, PDFImage>;
  readonly deflate: (bytes: Uint8Array) => Uint8Array;
  /** What somebody is called. */
  readonly nameOf: (id: string) => string;
}

const points = new InkColumns();

/**
 * Writes what lies on a page as annotations, in the order of drawing: each looks as it does on screen, says in the
 * standard's words what it is, whose and of when, and carries what it is to us.
 * @param map from points on the page to the PDF's user space
 */
export class AnnotationWriter {
  /** The graphics state that multiplies, once it is needed. */
  private multiply: PDFRef | null = null;

  constructor(
    private readonly doc: PDFDocument,
    private readonly parts: AnnotationWriting,
  ) {}

  add(items: readonly Item[], target: PDFPage, map: Matrix): void {
    if (items.length === 0) return;
    const { context } = this.doc;
    const list = target.node.Annots() ?? PDFArray.withContext(context);
    for (const item of items) list.push(this.write(item, map));
    target.node.set(PDFName.of('Annots'), list);
  }

  private write(item: Item, map: Matrix): PDFRef {
    const { context } = this.doc;
    const annotation = describe(item, map);
    const content = this.draw(item, map);
    const packed = content.length < SHORT ? content : this.parts.deflate(content);
    const head =
      `/Type/XObject/Subtype/Form/BBox${rectCode(annotation.rect)}/Resources${this.resources()}` +
      (packed === content ? '' : '/Filter/FlateDecode');
    const form = context.register(new WrittenStream(head, packed, context));
    const own = hexOf(packOwn(item));
    const code = codeOf(annotation, {
      id: item.id,
      author: this.parts.nameOf(item.by),
      at: item.at,
      appearance: form.toString(),
      own: `/${OWN.item}<${own}>/${OWN.seal} ${sealOf(annotation, map)}`,
    });
    return context.register(new WrittenDict(code));
  }

  private draw(item: Item, map: Matrix): Uint8Array {
    const { writer } = this.parts;
    writer.start(map);
    if (item.kind === 'ink') {
      const style = readStroke(item.ink, points);
      writer.group((sink) => drawStroke(style, points, sink));
    } else {
      writer.group((sink) => drawItem(item, sink));
    }
    return writer.done().slice();
  }

  /** What the content just drawn refers to. */
  private resources(): string {
    const { writer, pictures } = this.parts;
    let code = '';
    if (writer.multiplies) {
      const { context } = this.doc;
      const state = context.obj({ Type: 'ExtGState', BM: 'Multiply' });
      this.multiply ??= context.register(state);
      code += `/ExtGState<</${MULTIPLY} ${this.multiply.toString()}>>`;
    }
    if (writer.pictures.size > 0) {
      const names = [...writer.pictures].map(
        ([file, name]) => `/${name} ${pictures.get(file)!.ref.toString()}`,
      );
      code += `/XObject<<${names.join('')}>>`;
    }
    if (writer.fonts.size > 0) {
      const names = [...writer.fonts].map(([name, font]) => `/${name} ${font.ref.toString()}`);
      code += `/Font<<${names.join('')}>>`;
    }
    return `<<${code}>>`;
  }
}

const HEX = Array.from({ length: 256 }, (_, i) => i.toString(16).padStart(2, '0'));

function hexOf(bytes: Uint8Array): string {
  let hex = '';
  for (const byte of bytes) hex += HEX[byte]!;
  return hex;
}
