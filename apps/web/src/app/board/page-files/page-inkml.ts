import { drawnOn } from '@cuaderno/core/board';
import type { InkItem, Page } from '@cuaderno/core/board';

/**
 * The lines of a page as InkML.
 * @param nameOf what somebody is called; nothing is written about those who aren't
 */
export async function pageInkMl(
  page: Page,
  nameOf: (id: string) => string | null = () => null,
): Promise<Blob> {
  const { writeInkMl } = await import('@cuaderno/formats/inkml');
  const lines = drawnOn(page).filter((item): item is InkItem => item.kind === 'ink');
  const { width, height } = page;
  const text = writeInkMl(lines, { width, height, nameOf });
  return new Blob([text], { type: 'application/inkml+xml' });
}
