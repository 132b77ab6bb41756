import * as z from 'zod';

/** Why an operation is not taken. */
export const RefusalCode = z.enum([
  'no-pen',
  'pens-in',
  'not-yours',
  'tutor-only',
  'no-such-page',
  'bad-ink',
  'bad-order',
  'bad-item',
  'no-such-item',
  'material-tutor',
  'printed-page',
  'unknown-file',
  'id-taken',
  'too-much',
]);
export type RefusalCode = z.infer<typeof RefusalCode>;

/** What the person who did it reads: what happened, and what to do next. */
export const REFUSALS: Record<RefusalCode, string> = {
  'no-pen': 'You are watching just now. Ask your tutor for a pen.',
  'pens-in':
    'There is no writing on this page just now. Go on at another page, or ask your tutor to open this one.',
  'not-yours': 'That was written by someone else. You can erase what you wrote yourself.',
  'tutor-only': 'Only the tutor changes pages. Ask your tutor to do it.',
  'no-such-page': 'That page is no longer on this board. Go to another page and write there.',
  'bad-ink': 'That line could not be read. Draw it once more.',
  'printed-page':
    'This page is from a file and stays as it was printed. Add an empty page for another paper.',
  'unknown-file':
    'The file of that page is not on this board. Upload the PDF itself: its pages come with it.',
  'bad-item': 'That change could not be made. Undo it, or reload and try again.',
  'no-such-item': 'That is no longer on this page. See what is there now, and go on.',
  'material-tutor': 'Only the tutor changes what lies on the page. Ask your tutor to do it.',
  'id-taken': 'That could not be told apart from something else. Do it once more.',
  'too-much':
    'This lesson holds as much of yours as it can. Ask your tutor to close it and open the next one.',
  'bad-order': 'That place between pages could not be read. Reload and try again.',
};
