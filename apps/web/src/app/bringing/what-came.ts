import type { Lifted } from '../api/shapes';

/** Whether there is something to say of what a PDF had besides its pages. */
export function isToBeTold(lifted: Lifted | undefined): lifted is Lifted {
  return lifted !== undefined && lifted.count + lifted.comments + lifted.attached > 0;
}

/** What became of what others had written on a PDF, in sentences. */
export function whatCame({ count, comments, stayed, attached }: Lifted): string[] {
  return [
    count > 0 &&
      `${count === 1 ? 'One annotation' : `${count} annotations`} of this PDF can be written on, moved and rubbed out like your own ink, in the nearest of the colours here.`,
    comments > 0 &&
      `${comments === 1 ? 'One comment lies' : `${comments} comments lie`} on ${comments === 1 ? 'a slip' : 'slips'} with the writer’s name. Students don’t see ${comments === 1 ? 'it' : 'them'} until you show ${comments === 1 ? 'it' : 'them'}.`,
    stayed > 0 && `${stayed === 1 ? 'One stays' : `${stayed} stay`} part of the pages.`,
    attached > 0 &&
      `${attached === 1 ? 'An attached file stays' : `${attached} attached files stay`} in the PDF among your materials, and won’t be in PDFs of this board.`,
  ].filter((sentence) => sentence !== false);
}
