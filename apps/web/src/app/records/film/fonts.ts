import type { FontSource } from './film-task';

/** The fonts that this page has from its style sheets: a worker has none of them by itself. */
export function fontSources(sheets: Iterable<CSSStyleSheet> = document.styleSheets): FontSource[] {
  const sources: FontSource[] = [];
  for (const sheet of sheets) {
    for (const rule of sheet.cssRules) {
      if (!(rule instanceof CSSFontFaceRule)) continue;
      const said = (name: string): string => rule.style.getPropertyValue(name);
      const base = sheet.href ?? location.href;
      sources.push({
        family: said('font-family').replace(/^["']|["']$/g, ''),
        source: said('src').replace(
          /url\("([^"]*)"\)/g,
          (_, path: string) => `url("${new URL(path, base).href}")`,
        ),
        weight: said('font-weight') || 'normal',
        style: said('font-style') || 'normal',
        unicodeRange: said('unicode-range') || 'U+0-10FFFF',
      });
    }
  }
  return sources;
}

/** Makes them known to the worker that this runs in. Each is loaded when something is set in it. */
export function knowFonts(sources: readonly FontSource[], fonts: FontFaceSet): void {
  for (const { family, source, weight, style, unicodeRange } of sources)
    fonts.add(new FontFace(family, source, { weight, style, unicodeRange }));
}
