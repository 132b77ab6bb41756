import { PDFName, PDFString } from '@cantoo/pdf-lib';
import type { PDFDocument } from '@cantoo/pdf-lib';
import { unmarkProtected } from '../pdf-source/protection.js';

export interface Metadata {
  readonly title: string;
  readonly author: string;
  readonly date: Date;
  /** BCP 47 */
  readonly language?: string;
}

/** What the file is, whose and in which language, in both places where programs look for it. */
export function setMetadata(doc: PDFDocument, about: Metadata): void {
  const { title, author, date, language } = about;
  unmarkProtected(doc);
  doc.setTitle(title, { showInWindowTitleBar: true });
  doc.setAuthor(author);
  doc.setCreator('Cuaderno');
  doc.setProducer('Cuaderno');
  doc.setModificationDate(date);
  if (language) doc.catalog.set(PDFName.of('Lang'), PDFString.of(language));
  const { context } = doc;
  const metadata = context.stream(new TextEncoder().encode(xmpOf(about)), {
    Type: 'Metadata',
    Subtype: 'XML',
  });
  doc.catalog.set(PDFName.of('Metadata'), context.register(metadata));
}

/** Metadata in RDF (ISO 16684-1, XMP; Dublin Core for what and whose). */
function xmpOf({ title, author, date, language }: Metadata): string {
  const when = date.toISOString();
  return [
    '<?xpacket begin="\ufeff" id="W5M0MpCehiHzreSzNTczkc9d"?>',
    '<x:xmpmeta xmlns:x="adobe:ns:meta/">',
    '<rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">',
    '<rdf:Description rdf:about="" xmlns:dc="http://purl.org/dc/elements/1.1/"',
    ' xmlns:xmp="http://ns.adobe.com/xap/1.0/" xmlns:pdf="http://ns.adobe.com/pdf/1.3/">',
    '<dc:format>application/pdf</dc:format>',
    `<dc:title><rdf:Alt><rdf:li xml:lang="x-default">${escape(title)}</rdf:li></rdf:Alt></dc:title>`,
    `<dc:creator><rdf:Seq><rdf:li>${escape(author)}</rdf:li></rdf:Seq></dc:creator>`,
    ...(language
      ? [`<dc:language><rdf:Bag><rdf:li>${escape(language)}</rdf:li></rdf:Bag></dc:language>`]
      : []),
    `<xmp:ModifyDate>${when}</xmp:ModifyDate><xmp:CreatorTool>Cuaderno</xmp:CreatorTool>`,
    '<pdf:Producer>Cuaderno</pdf:Producer>',
    '</rdf:Description></rdf:RDF></x:xmpmeta>',
    '<?xpacket end="w"?>',
  ].join('\n');
}

function escape(text: string): string {
  return text.replace(/[<>&]/g, (sign) => `&#${sign.charCodeAt(0)};`);
}
