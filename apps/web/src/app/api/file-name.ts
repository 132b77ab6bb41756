import { parse } from 'content-disposition';

/** What a file is called that comes with this header (RFC 6266). Few windows ever download something: see `Api`. */
export function fileNameIn(disposition: string): string {
  return parse(disposition).parameters['filename'] ?? 'record.pdf';
}
