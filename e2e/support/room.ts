import type { Browser } from './browser.ts';

/**
 * Texts of the page that are cut and can be read nowhere: neither by moving what they stand in sideways, nor in their whole beside the pointer. Runs in the page.
 */
const LOOK = `
  const moves = (one) => {
    for (let e = one; e; e = e.parentElement) {
      const { overflowX } = getComputedStyle(e);
      if (/auto|scroll/.test(overflowX) && e.scrollWidth > e.clientWidth) return true;
    }
    return false;
  };
  const toldWhole = (one) => one.closest('[title]:not([title=""])') !== null;
  const found = new Set();
  for (const one of document.querySelectorAll('#app *')) {
    if (![...one.childNodes].some((node) => node.nodeType === Node.TEXT_NODE && node.textContent.trim() !== '')) continue;
    if (one.closest('svg, [aria-hidden=true], .visually-hidden') || toldWhole(one)) continue;
    const { overflowX, visibility } = getComputedStyle(one);
    const { left, right, width, height } = one.getBoundingClientRect();
    if (visibility === 'hidden' || width < 2 || height < 2) continue;
    const words = one.textContent.trim().replace(/\\s+/g, ' ').slice(0, 60);
    if (/hidden|clip/.test(overflowX) && one.scrollWidth > one.clientWidth + 1) found.add('cut: ' + words);
    if ((right > innerWidth + 1 || left < -1) && !moves(one)) found.add('beyond the page: ' + words);
  }
  return [...found].slice(0, 10);`;

/** At twice the size on a small screen, on a small one, on a wide one; in pixels of the page. */
const SIZES = [[640, 400], [1000, 700], [2560, 1300]] as const; // prettier-ignore

/** What the view that is open cuts at any of these sizes; it is given time to lay itself out. */
export async function cutAtAnySize({ driver, size }: Pick<Browser, 'driver' | 'size'>): Promise<string[]> {
  const cut: string[] = [];
  for (const [width, height] of SIZES) {
    await size(width, height);
    const found = await driver.executeAsyncScript<string[]>(
      `const done = arguments[0]; setTimeout(() => requestAnimationFrame(() => done((() => {${LOOK}})())), 100);`,
    );
    cut.push(...found.map((one) => `${width} px ${one}`));
  }
  await size(1280, 800);
  return cut;
}
