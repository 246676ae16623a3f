import type { DataKind, Way } from './touched.ts';

interface LineageData {
  namespace?: unknown;
  name?: unknown;
}
const MOST = 40;
const LONGEST = 200;

/**
 * What a run event of OpenLineage (an open standard) says a run reads and writes; null for what is none.
 *
 * @param message the event as JSON, or its beginning and its end: then what can be told of these
 */
export function lineageIn(message: string): { way: Way; kind: DataKind; name: string; instance: string }[] | null {
  if (!message.startsWith('{') || !message.includes('"eventType"') || !message.includes('"runId"')) return null;
  let event: { run?: { runId?: unknown }; job?: unknown; inputs?: unknown; outputs?: unknown };
  try {
    event = JSON.parse(message) as typeof event;
  } catch {
    return ofPieces(message);
  }
  if (typeof event.run?.runId !== 'string' || typeof event.job !== 'object') return null;
  const of = (list: unknown, way: Way) => (Array.isArray(list) ? (list as LineageData[]) : []).slice(0, MOST).flatMap((one) => dataOf(one, way));
  return [...of(event.inputs, 'reads'), ...of(event.outputs, 'writes')];
}

type Touched = { way: Way; kind: DataKind; name: string; instance: string };
function dataOf({ namespace, name }: LineageData, way: Way): Touched[] {
  if (typeof name !== 'string' || name === '') return [];
  const space = typeof namespace === 'string' ? namespace : '';
  const kind: DataKind = /^(?:file|s3|gs|hdfs|wasbs?|abfss?|dbfs|ftp|sftp)\b/i.test(space) ? 'file' : /^(?:kafka|amqp|pulsar|mqtt|http)/i.test(space) ? 'feed' : 'table'; // prettier-ignore
  return [{ way, kind, name: name.toLowerCase().slice(0, LONGEST), instance: '' }];
}

const TEXT = String.raw`"((?:[^"\\]|\\.){0,400})"`;
/** Where a list begins, or where one of its things is named; columns that are made of others name these too, with a field. */
const IN_PIECES = new RegExp(String.raw`"(inputs|outputs)"\s*:\s*\[|\{\s*"namespace"\s*:\s*${TEXT}\s*,\s*"name"\s*:\s*${TEXT}(\s*,\s*"field")?`, 'g');
/** A long event is kept with its beginning and its end: things behind the name of their list, as far as that is there. */
function ofPieces(message: string): Touched[] | null {
  const cut = message.indexOf('\n');
  if (cut < 0 || !/"run"\s*:\s*\{\s*"runId"\s*:\s*"/.test(message) || !message.trimEnd().endsWith('}')) return null;
  const found: Touched[] = [];
  for (const piece of [message.slice(0, cut), message.slice(cut + 1)]) {
    let way: Way | null = null;
    for (const [, list, namespace, name, field] of piece.matchAll(IN_PIECES)) {
      if (list) way = list === 'inputs' ? 'reads' : 'writes';
      else if (way !== null && field === undefined && found.length < 2 * MOST) found.push(...dataOf({ namespace, name }, way));
    }
  }
  return found;
}
