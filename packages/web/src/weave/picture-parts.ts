import { render, type VNode } from 'vue';

export const NS = 'http://www.w3.org/2000/svg';
export const MARGIN = 20;
export const MONO = "12.5px 'JetBrains Mono', monospace";
export const SANS = "'Source Sans 3 Variable', 'Source Sans 3', sans-serif";
const STYLES = ['fill', 'fill-opacity', 'opacity', 'stroke', 'stroke-width', 'stroke-dasharray', 'stroke-linecap', 'stroke-linejoin', 'paint-order'];

const application = (): Element => document.querySelector('.v-application') ?? document.body;
/** A colour of the theme, by its name. */
export const colour = (name: string): string => getComputedStyle(application()).getPropertyValue(`--${name}`).trim();

export function make(name: string, attributes: Record<string, string | number>, content = ''): SVGElement {
  const element = document.createElementNS(NS, name);
  for (const [key, value] of Object.entries(attributes)) if (key !== 'xmlns') element.setAttribute(key, String(value));
  element.textContent = content;
  return element;
}
export const text = (content: string, x: number, y: number, font: string, fill: string): SVGElement =>
  make('text', { x, y, style: `font: ${font}; white-space: pre`, fill }, content);
export const cut = (words: string, most: number): string => (words.length > most ? `${words.slice(0, most - 1)}…` : words);
export const outcomeColour = (outcome: string): string => {
  const probe = Object.assign(document.createElement('span'), { className: `outcome-${outcome}` });
  application().append(probe);
  const found = getComputedStyle(probe).color;
  probe.remove();
  return found || colour('ink');
};

/** What the page draws, with its colours and letters written into it. */
export function drawnAlone(node: VNode): SVGElement {
  const place = document.createElement('div');
  place.style.cssText = 'position:absolute;left:-100000px;top:0';
  application().append(place);
  try {
    render(node, place);
    const drawn = place.querySelector('svg')!;
    const copy = drawn.cloneNode(true) as SVGElement;
    const originals = [drawn, ...drawn.querySelectorAll('*')];
    [copy, ...copy.querySelectorAll('*')].forEach((one, i) => {
      const style = getComputedStyle(originals[i]!);
      for (const name of STYLES) one.setAttribute(name, style.getPropertyValue(name));
      if (one.nodeName === 'text') one.setAttribute('style', `font: ${style.font}; white-space: pre`);
      for (const name of one.getAttributeNames())
        if (name === 'class' || name.startsWith('data-') || name.startsWith('aria-') || name === 'role' || name === 'id') one.removeAttribute(name);
    });
    return copy;
  } finally {
    render(null, place);
    place.remove();
  }
}
