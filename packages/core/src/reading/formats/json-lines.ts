import type { Draft, FieldValue, Fields, Reader, RecordReader, ReadingContext, Sample } from './shared.ts';
import { NamedFields, namesOf } from '../named-fields.ts';
import { InnerJson } from './inner-json.ts';

const MOST_FIELDS = 200;
/** Objects line by line are that, also where nothing in them tells a time. */
const TIMELESS = 0.94;

/** One JSON object a line (RFC 8259), of any nesting; nested names become paths with dots. */
export const jsonLines: Reader = {
  format: 'json-lines',
  confidence(sample) {
    const lines = sample.lines.filter((line) => line.trim() !== '').slice(0, 200);
    if (lines.length === 0) return 0;
    const named = new NamedFields({ zone: 'UTC', modified: 0 });
    let sum = 0;
    for (const line of lines) {
      const object = line.trimStart().startsWith('{') ? parseObject(line) : null;
      if (!object) continue;
      const fields: Fields = {};
      flatten(object, '', fields);
      sum += named.hasTime(fields) ? 1 : lines.length > 1 ? TIMELESS : 0.5;
    }
    return (sum / lines.length) * 0.98;
  },
  open: (_sample: Sample, context: ReadingContext): RecordReader => new JsonLinesReader(context),
};

class JsonLinesReader implements RecordReader {
  private readonly named: NamedFields;
  private readonly inner: InnerJson;
  constructor(context: ReadingContext) {
    this.named = new NamedFields(context);
    this.inner = new InnerJson(context);
  }
  start(): void {}
  begins(): boolean {
    return true;
  }

  read(text: string, draft: Draft): void {
    const object = parseObject(text);
    if (!object) {
      draft.message = text;
      return;
    }
    const fields: Fields = {};
    flatten(object, '', fields);
    const { component, host } = namesOf(fields);
    draft.component = component;
    draft.host = host;
    if (this.named.read(fields, text, draft) && draft.message !== text) this.inner.read(draft);
  }
}

export function parseObject(text: string): Record<string, unknown> | null {
  try {
    const value: unknown = JSON.parse(text);
    return value !== null && typeof value === 'object' && !Array.isArray(value) ? (value as Record<string, unknown>) : null;
  } catch {
    return null; // not an object: the line is kept whole as a record that is not understood
  }
}

function jsonText(value: object): string {
  try {
    return JSON.stringify(value);
  } catch {
    return '(nested too deeply)'; // deeper than the platform's stack; the text of the record is kept
  }
}

/** Nested members as fields with paths; lists stay JSON. */
export function flatten(value: object, prefix: string, into: Fields, depth = 0, count = { left: MOST_FIELDS }): void {
  for (const [name, inner] of Object.entries(value)) {
    if (count.left <= 0) return;
    const path = prefix + name;
    if (inner === null || inner === undefined) continue;
    if (typeof inner === 'object') {
      if (Array.isArray(inner) || depth >= 8) {
        into[path] = jsonText(inner);
        count.left--;
      } else flatten(inner as object, path + '.', into, depth + 1, count);
    } else {
      into[path] = inner as FieldValue;
      count.left--;
    }
  }
}
