import type { Page } from '@cuaderno/core/board';

/** What an SVG of a page is good for: the print of a PDF is in it as a picture. */
export function svgWords(page: Page | null): string {
  return page?.paper.kind === 'pdf'
    ? 'What is written stays sharp at any size; the print under it is a picture.'
    : 'A drawing that stays sharp at any size.';
}
