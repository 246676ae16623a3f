import { SaxesParser } from 'saxes';
import { validXml } from './valid-xml.ts';
import { TreeWriter, type FlatTree } from './flat.ts';
import { DEEPEST, MOST_NODES, type Broken } from './types.ts';

/**
 * An XML text as a tree; where it is broken, as far as it is understood. No DTD is read and no entity but the five of XML is known.
 *
 * @param base what offsets count from
 * @returns null where not even one element begins; `end` is behind the outermost element
 */
export function xmlParts(text: string, base: number): { tree: FlatTree; nodes: number; end: number; broken: Broken | null } | null {
  const valid = validXml(text);
  return valid ? { tree: valid.tree, nodes: valid.nodes, end: valid.end, broken: null } : partsOfAny(text, base);
}

/** By a parser that goes on behind errors. */
export function partsOfAny(text: string, base: number): ReturnType<typeof xmlParts> {
  const parser = new SaxesParser({ xmlns: false, fragment: true, position: true });
  const out = new TreeWriter('');
  const open: { node: number; value: string }[] = [];
  let deeper = 0;
  let end = 0;
  let broken: Broken | null = null;
  const breaks = (why: string): void => void (broken ??= { at: base + Math.max(0, Math.min(text.length, parser.position - 1)), why });
  parser.on('error', (error) => breaks(error.message.replace(/^\d+:\d+: /, '').replace(/\.$/, '')));
  parser.on('opentag', ({ name, attributes }) => {
    if (end > 0) return;
    if (open.length >= DEEPEST || out.count >= MOST_NODES) {
      deeper++;
      breaks(open.length >= DEEPEST ? `it is nested deeper than ${DEEPEST}` : `it has more than ${MOST_NODES.toLocaleString('en')} parts`);
      return;
    }
    const from = out.add(name);
    open.push({ node: out.begin('element', from, from + name.length), value: '' });
    for (const [key, value] of Object.entries(attributes as Record<string, string>)) {
      const at = out.add(key);
      const behind = out.add(value);
      out.begin('attribute', at, behind, behind, behind + value.length);
    }
  });
  /** What is said of an element is told when it ends, at the latest with the text. */
  const close = (): void => {
    const { node, value } = open.pop()!;
    out.end(node);
    const from = out.add(value);
    out.value(node, from, from + value.length);
  };
  parser.on('closetag', () => {
    if (deeper > 0) deeper--;
    else if (open.length > 0) {
      close();
      if (open.length === 0 && end === 0) end = parser.position;
    }
  });
  const add = (part: string): void => {
    if (end === 0 && open.length > 0 && part.trim() !== '') open[open.length - 1]!.value += part;
  };
  parser.on('text', add);
  parser.on('cdata', add);
  try {
    // the declaration stands at the beginning of a document, not of a body; its place is kept
    parser.write(text.replace(/^<\?xml[^>]*\?>/, (declaration) => ' '.repeat(declaration.length))).close();
  } catch (error) {
    breaks((error as Error).message);
  }
  while (open.length > 0) close();
  if (out.count === 0) return null;
  if (end > 0 && broken !== null && (broken as Broken).at - base >= end) broken = null; // what stands behind it is another matter
  return { tree: out.tree(), nodes: out.count, end: end > 0 ? end : text.length, broken };
}
