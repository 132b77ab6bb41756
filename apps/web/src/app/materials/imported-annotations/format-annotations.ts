import type { ImportedAnnotations } from '../../api/shapes';

/** Whether there is something to say of what a PDF had besides its pages. */
export function hasAnnotations(
  annotations: ImportedAnnotations | undefined,
): annotations is ImportedAnnotations {
  return (
    annotations !== undefined && annotations.count + annotations.comments + annotations.attached > 0
  );
}

/** What became of what others had written on a PDF, in sentences. */
export function whatCame({ count, comments, stayed, attached }: ImportedAnnotations): string[] {
  return [
    count > 0 &&
      `${count === 1 ? 'One annotation' : `${count} annotations`} of this PDF can be changed like your own ink; the colours are the nearest here.`,
    comments > 0 &&
      `${comments === 1 ? 'One comment lies' : `${comments} comments lie`} on ${comments === 1 ? 'a slip' : 'slips'} with the writer’s name. Students don’t see ${comments === 1 ? 'it' : 'them'} until you show ${comments === 1 ? 'it' : 'them'}.`,
    stayed > 0 && `${stayed === 1 ? 'One stays' : `${stayed} stay`} part of the pages.`,
    attached > 0 &&
      `${attached === 1 ? 'An attached file stays' : `${attached} attached files stay`} in the PDF among your materials, and won’t be in PDFs of this board.`,
  ].filter((sentence) => sentence !== false);
}
