import { SaxesParser } from 'saxes';
import { rootOf } from '../structure/flat.ts';
import type { TreeNode } from '../structure/types.ts';
import { validXml } from '../structure/valid-xml.ts';

export interface XmlNode {
  /** Without a namespace's prefix. */
  name: string;
  attributes: [string, string][];
  children: XmlNode[];
  /** Its own text and CDATA. */
  text: string;
}

/** An XML name without the prefix of its namespace. */
export const localName = (name: string): string => name.slice(name.indexOf(':') + 1);

/**
 * The tree of one XML element. No DTD is read and no entity but the five of XML is known, so nothing outside is fetched and nothing grows.
 *
 * @returns null where the text is not well-formed
 */
export function xmlTree(text: string): XmlNode | null {
  const plain = validXml(text);
  // most events are plain; the general parser takes about twice as long for them
  return plain && !plain.blanks && text.slice(plain.end).trim() === '' ? nodeOf(rootOf(plain.tree)) : xmlTreeOfAny(text);
}

function nodeOf({ name, value, children }: TreeNode): XmlNode {
  const node: XmlNode = { name: localName(name), attributes: [], children: [], text: value };
  for (const child of children) {
    if (child.kind === 'attribute') node.attributes.push([child.name.slice(1), child.value]);
    else node.children.push(nodeOf(child));
  }
  return node;
}

/** By a parser that knows all of XML. */
export function xmlTreeOfAny(text: string): XmlNode | null {
  const parser = new SaxesParser({ xmlns: false, fragment: true, position: false });
  const top: XmlNode = { name: '', attributes: [], children: [], text: '' };
  const open: XmlNode[] = [top];
  let broken = false;
  parser.on('error', () => (broken = true));
  parser.on('opentag', ({ name, attributes }) => {
    const node: XmlNode = { name: localName(name), attributes: Object.entries(attributes as Record<string, string>), children: [], text: '' };
    open[open.length - 1]!.children.push(node);
    open.push(node);
  });
  parser.on('closetag', () => open.pop());
  const add = (part: string): void => {
    open[open.length - 1]!.text += part;
  };
  parser.on('text', add);
  parser.on('cdata', add);
  try {
    parser.write(text).close();
  } catch {
    return null; // after an error the parser may refuse to go on: the text is kept whole
  }
  return broken || top.children.length !== 1 ? null : top.children[0]!;
}
