import { spawn } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { call } from '../packages/launch/src/client.ts';
import { times } from './measure.ts';

/** A question to the server: stages one after the other, the addresses of a stage side by side. */
export type Question = readonly (readonly string[])[];

/** Asks from a process of its own, as a browser does, so that it does not take the time of the server that it measures. @returns milliseconds, in order of size */
export async function askApart(questions: readonly Question[]): Promise<number[]> {
  const own = fileURLToPath(import.meta.url);
  const child = spawn(process.execPath, [...process.execArgv, own], { stdio: ['pipe', 'pipe', 'inherit'] });
  child.stdin.end(JSON.stringify(questions));
  let told = '';
  for await (const part of child.stdout) told += String(part);
  return JSON.parse(told) as number[];
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  let asked = '';
  for await (const part of process.stdin) asked += String(part);
  const questions = JSON.parse(asked) as Question[];
  const found = await times(questions.length, async (i) => {
    for (const stage of questions[i]!) await Promise.all(stage.map((url) => call(url)));
  });
  process.stdout.write(JSON.stringify(found));
}
