/** Families of the page that a picture takes along. */
const FAMILIES = ['Source Sans 3 Variable', 'JetBrains Mono'];

/** Whether a range as in CSS (`U+0000-00FF, U+0131`) holds one of these characters; without a range all are held. */
export function holdsAny(range: string, letters: ReadonlySet<number>): boolean {
  if (range.trim() === '') return true;
  return range.split(',').some((part) => {
    const hit = /^\s*U\+([0-9A-F?]+)(?:-([0-9A-F]+))?\s*$/i.exec(part);
    if (!hit) return false;
    const from = parseInt(hit[1]!.replaceAll('?', '0'), 16);
    const to = hit[2] === undefined ? parseInt(hit[1]!.replaceAll('?', 'F'), 16) : parseInt(hit[2], 16);
    return [...letters].some((letter) => letter >= from && letter <= to);
  });
}

/** The page's fonts as far as a text needs them, written into style sheets, so that a picture looks the same anywhere. */
export async function fontsFor(text: string): Promise<string> {
  const letters = new Set([...text].map((letter) => letter.codePointAt(0)!));
  const faces = [...document.styleSheets].flatMap((sheet) =>
    [...sheet.cssRules].filter((rule): rule is CSSFontFaceRule => rule instanceof CSSFontFaceRule),
  );
  const needed = faces.filter(({ style }) => {
    const family = style.getPropertyValue('font-family').replaceAll(/["']/g, '');
    return (
      FAMILIES.includes(family) && style.getPropertyValue('font-style') !== 'italic' && holdsAny(style.getPropertyValue('unicode-range'), letters)
    );
  });
  const rules = await Promise.all(
    needed.map(async ({ style, parentStyleSheet }) => {
      const source = /url\(["']?([^"')]+)["']?\)/.exec(style.getPropertyValue('src'))?.[1];
      if (!source) return '';
      const url = source.startsWith('data:') ? source : await dataUrl(new URL(source, parentStyleSheet?.href ?? document.baseURI).href);
      return `@font-face { font-family: ${style.getPropertyValue('font-family')}; font-weight: ${style.getPropertyValue('font-weight') || '400'}; src: url(${url}); unicode-range: ${style.getPropertyValue('unicode-range') || 'U+0-10FFFF'}; }`;
    }),
  );
  return rules.join('\n');
}

async function dataUrl(url: string): Promise<string> {
  const blob = await (await fetch(url)).blob();
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result));
    reader.onerror = () => reject(reader.error ?? new Error('a font could not be read'));
    reader.readAsDataURL(blob);
  });
}
