import { mkdir, readFile, rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { describe } from '../packages/server/src/gathering/intake/describe.ts';
import { filesBelow } from '../packages/launch/src/client.ts';
import { ms, timed, type Result } from './measure.ts';
import { logsOf } from './world.ts';

const FILES = 1000;
const SIZE = 150_000;

/** Guessing format, encoding, component, host and dates of a folder of a thousand files, pieces of the demo's logs. */
export async function benchGuess(): Promise<Result[]> {
  const { folder } = await logsOf('demo-logs', 'demo');
  const sources = await filesBelow([join(folder, 'logs')]);
  const out = join(folder, 'pieces');
  await rm(out, { recursive: true, force: true });
  const pieces: { file: string; path: string; wanted: string }[] = [];
  for (const source of sources) {
    const text = await readFile(source.file, 'utf8');
    const { format } = await describe(String(source.file), source.path, 1.795e15);
    const each = Math.ceil(FILES / sources.length);
    for (let i = 0; i < each && pieces.length < FILES; i++) {
      const from = text.indexOf('\n', Math.floor((text.length * i) / each / 2)) + 1;
      const file = join(out, String(i), source.path);
      await mkdir(join(file, '..'), { recursive: true });
      await writeFile(file, text.slice(from, from + SIZE));
      pieces.push({ file, path: source.path, wanted: format });
    }
  }
  let right = 0;
  const { ms: took } = await timed(async () => {
    for (const { file, path, wanted } of pieces) {
      const about = await describe(String(file), path, (await stat(file)).mtimeMs * 1000);
      if (about.format === wanted) right++;
    }
  });
  return [
    {
      what: `guessing what a folder of ${pieces.length.toLocaleString('en')} files is`,
      figure: ms(took),
      raw: `${right.toLocaleString('en')} as for the whole file, though each piece begins anywhere`,
      ratio: '',
      budget: '< 10 s',
    },
  ];
}
