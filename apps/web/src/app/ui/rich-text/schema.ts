import type { Paragraph, RichText, Run } from '@cuaderno/core/text';
import { Schema } from 'prosemirror-model';
import type { MarkType, Node } from 'prosemirror-model';

/** What can be written: paragraphs, in a list or not, with weight and slant. */
export const schema = new Schema({
  nodes: {
    doc: { content: 'paragraph+' },
    paragraph: {
      content: 'text*',
      attrs: { list: { default: null } },
      parseDOM: [
        { tag: 'ul > li', attrs: { list: 'dots' } },
        { tag: 'ol > li', attrs: { list: 'numbers' } },
        { tag: 'p, h1, h2, h3, h4, h5, h6, blockquote, pre, div, tr' },
      ],
      toDOM: (node) => ['p', { class: (node.attrs['list'] as string | null) ?? 'plain' }, 0],
    },
    text: {},
  },
  marks: {
    bold: {
      parseDOM: [{ tag: 'b' }, { tag: 'strong' }, { style: 'font-weight=bold' }],
      toDOM: () => ['strong', 0],
    },
    slant: {
      parseDOM: [{ tag: 'i' }, { tag: 'em' }, { style: 'font-style=italic' }],
      toDOM: () => ['em', 0],
    },
  },
});

export type ListKind = 'dots' | 'numbers';

export function toDoc(text: RichText): Node {
  const marksOf = (run: Run): MarkType[] => [
    ...(run.bold ? [schema.marks.bold] : []),
    ...(run.slant ? [schema.marks.slant] : []),
  ];
  const paragraphs = text.map(({ list, runs }) =>
    schema.nodes.paragraph.create(
      { list: list ?? null },
      runs.map((run) =>
        schema.text(
          run.text,
          marksOf(run).map((mark) => mark.create()),
        ),
      ),
    ),
  );
  return schema.nodes.doc.create(
    null,
    paragraphs.length > 0 ? paragraphs : [schema.nodes.paragraph.create()],
  );
}

export function fromDoc(doc: Node): RichText {
  const text: Paragraph[] = [];
  doc.forEach((node) => {
    const runs: Run[] = [];
    node.forEach((child) => {
      const has = (mark: MarkType): boolean => mark.isInSet(child.marks) !== undefined;
      runs.push({
        text: child.text ?? '',
        ...(has(schema.marks.bold) ? { bold: true } : {}),
        ...(has(schema.marks.slant) ? { slant: true } : {}),
      });
    });
    const list = node.attrs['list'] as ListKind | null;
    text.push(list ? { list, runs } : { runs });
  });
  const only = text[0];
  return text.length === 1 && only!.runs.length === 0 && !only!.list ? [] : text;
}
