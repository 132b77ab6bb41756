/** Where the pages of a PDF go on a board, against the page in view. */
export type PagesGo = 'after' | 'before' | 'end';

export const PAGES_GO: readonly { readonly where: PagesGo; readonly words: string }[] = [
  { where: 'after', words: 'after this page' },
  { where: 'before', words: 'before this page' },
  { where: 'end', words: 'at the end' },
];
