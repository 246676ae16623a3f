import type { SourceText } from '@fadenweg/api';
import { visiblePath } from '@fadenweg/core/reading';
import { api } from './client.ts';

/** Folders that hold no source text of the program itself. */
const FOREIGN = /(?:^|\/)(?:\.[^/]+|node_modules|__pycache__)(?:\/|$)/;

/** Registers files of a folder as the source text of a version, by their paths below it. */
export function sendSourceText(files: readonly File[], component: string, version: string): Promise<SourceText> {
  const form = new FormData();
  for (const file of files) {
    const path = file.webkitRelativePath === '' ? file.name : file.webkitRelativePath.slice(file.webkitRelativePath.indexOf('/') + 1);
    if (!FOREIGN.test(path)) form.append('file', file, visiblePath(path));
  }
  return api.post('/source-texts', { query: { component, version }, body: form });
}
