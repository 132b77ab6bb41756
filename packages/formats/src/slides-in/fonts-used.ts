import { PDFDict, PDFDocument, PDFName } from '@cantoo/pdf-lib';

/**
 * Fonts that each page of a PDF is drawn with, by family: `BCDEEE+Carlito-Bold` is Carlito
 * (ISO 32000-1, 9.6.4: six letters and a plus stand before the name of a part of a font).
 */
export async function fontsUsed(pdf: Uint8Array): Promise<string[][]> {
  const doc = await PDFDocument.load(pdf, { updateMetadata: false });
  return doc.getPages().map(({ node }) => {
    const fonts = node.Resources()?.lookupMaybe(PDFName.of('Font'), PDFDict);
    const names = fonts?.keys().flatMap((key) => {
      const font = fonts.lookupMaybe(key, PDFDict);
      const name = font?.lookupMaybe(PDFName.of('BaseFont'), PDFName);
      return name ? [familyOf(name.decodeText())] : [];
    });
    return [...new Set(names)];
  });
}

function familyOf(name: string): string {
  return name
    .replace(/^[A-Z]{6}\+/, '')
    .replace(
      /[-,](Bold|Italic|Oblique|Regular|Book|Roman|Medium|Light|BoldItalic|BoldOblique)+$/i,
      '',
    )
    .replace(/([a-z])([A-Z])/g, '$1 $2');
}
