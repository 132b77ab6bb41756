import { fontSources, knowFonts } from './fonts';

describe('fonts for a worker', () => {
  it('are those of the style sheets, with addresses that hold anywhere', () => {
    const sheet = new CSSStyleSheet();
    sheet.replaceSync(
      `@font-face { font-family: 'Tidal Hand'; src: url("./tidal.woff2") format("woff2");
         font-weight: 200 800; font-style: italic; unicode-range: U+0-FF; }
       p { color: red; }`,
    );
    expect(fontSources([sheet])).toEqual([
      {
        family: 'Tidal Hand',
        source: `url("${new URL('./tidal.woff2', location.href).href}") format("woff2")`,
        ...{ weight: '200 800', style: 'italic', unicodeRange: 'U+0-FF' },
      },
    ]);
    const before = document.fonts.size;
    knowFonts(fontSources([sheet]), document.fonts);
    expect(document.fonts.size).toBe(before + 1);
    for (const font of [...document.fonts])
      if (font.family.includes('Tidal')) document.fonts.delete(font);
  });
});
