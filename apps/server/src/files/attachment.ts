/** A file name in any script (RFC 6266, 4.3, with RFC 8187's coding), and one in ASCII beside it. */
export function attachment(name: string): string {
  const ascii = name.normalize('NFKD').replace(/[^\x20-\x7e]|["\\%]/g, '');
  const coded = encodeURIComponent(name).replace(
    /['()*]/g,
    (c) => `%${c.charCodeAt(0).toString(16).toUpperCase()}`,
  );
  return `attachment; filename="${ascii || 'record.pdf'}"; filename*=UTF-8''${coded}`;
}
