// Makes the parser of the search language from its grammar: `npm run grammar` after a change. A test compares the two.
import { readFile, writeFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import peggy from 'peggy';

const folder = new URL('../packages/core/src/search/language/', import.meta.url);

/** The parser's source as it has to stand in the project. */
export async function parserSource() {
  const grammar = await readFile(new URL('grammar.peggy', folder), 'utf8');
  const source = peggy.generate(grammar, { output: 'source', format: 'es' });
  const code = source.slice(source.indexOf('\n\n'));
  return `// @ts-nocheck\n// Made from grammar.peggy by tools/grammar.mjs; not to be changed by hand.\n${code}`;
}
export const parserFile = new URL('grammar.generated.ts', folder);

if (process.argv[1] === fileURLToPath(import.meta.url)) await writeFile(parserFile, await parserSource());
