import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import ts from 'typescript';

/** What one endpoint answers, as its source says it. */
export interface Answered {
  /** `get /strands/{id}`. */
  name: string;
  /** The type within the promise, as written; `null` for nothing. */
  type: string | null;
  file: string;
}
/** Where a name that an answer is made of comes from. */
export type Origins = Map<string, string>;
/** Answers that are no value: what leaves piece by piece, and events. */
export const STREAMS = new Set(['Pieces', 'Telling']);

/** Files that hold endpoints. */
export async function routeFiles(folder: string): Promise<string[]> {
  const found = await readdir(folder, { recursive: true });
  return found.filter((name) => name.endsWith('-routes.ts')).sort().map((name) => join(folder, name)); // prettier-ignore
}

/**
 * Reads from the sources of endpoints which type each of them answers.
 *
 * @throws where one says no type, or one whose origin is neither the API nor the core
 */
export async function answersOf(files: readonly string[]): Promise<{ answered: Answered[]; origins: Origins }> {
  const answered: Answered[] = [];
  const origins: Origins = new Map();
  for (const file of files) {
    const source = ts.createSourceFile(file, await readFile(file, 'utf8'), ts.ScriptTarget.ES2023, true);
    const imported = importsOf(source);
    const visit = (node: ts.Node): void => {
      if (ts.isCallExpression(node) && node.expression.getText() === 'endpoint') {
        const one = endpointOf(node, file);
        for (const name of one.names) {
          if (STREAMS.has(name)) continue;
          const from = imported.get(name);
          if (!from?.startsWith('@fadenweg/'))
            throw new Error(`${file}: what ${one.answered.name} answers, ${name}, is neither of the API nor of the core`);
          if ((origins.get(name) ?? from) !== from) throw new Error(`${file}: there are two types ${name}`);
          origins.set(name, from);
        }
        answered.push(one.answered);
      }
      ts.forEachChild(node, visit);
    };
    visit(source);
  }
  return { answered: answered.sort((a, b) => (a.name < b.name ? -1 : 1)), origins };
}

function importsOf(source: ts.SourceFile): Map<string, string> {
  const found = new Map<string, string>();
  for (const one of source.statements) {
    if (!ts.isImportDeclaration(one) || !one.importClause?.namedBindings || !ts.isNamedImports(one.importClause.namedBindings)) continue;
    for (const { name, propertyName } of one.importClause.namedBindings.elements) {
      if (propertyName) continue;
      found.set(name.text, (one.moduleSpecifier as ts.StringLiteral).text);
    }
  }
  return found;
}

function endpointOf(call: ts.CallExpression, file: string): { answered: Answered; names: string[] } {
  const properties = new Map<string, ts.ObjectLiteralElementLike>();
  for (const one of (call.arguments[0] as ts.ObjectLiteralExpression).properties) properties.set(one.name!.getText(), one);
  const text = (key: string): string => ((properties.get(key) as ts.PropertyAssignment).initializer as ts.StringLiteral).text;
  const name = `${text('method')} ${text('path')}`;
  const run = properties.get('run')!;
  const type = ts.isMethodDeclaration(run) ? run.type : ((run as ts.PropertyAssignment).initializer as ts.ArrowFunction).type;
  const within = type && ts.isTypeReferenceNode(type) && type.typeName.getText() === 'Promise' ? type.typeArguments?.[0] : undefined;
  if (!within) throw new Error(`${file}: ${name} does not say what it answers (Promise<…>)`);
  const names: string[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isTypeReferenceNode(node)) names.push(node.typeName.getText());
    ts.forEachChild(node, visit);
  };
  visit(within);
  return { answered: { name, type: within.kind === ts.SyntaxKind.VoidKeyword ? null : within.getText(), file }, names };
}
