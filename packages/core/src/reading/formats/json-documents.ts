import type { Cut, Draft, Fields, Reader, RecordReader, ReadingContext, Sample } from './shared.ts';
import { JsonCutter, type JsonCutterState } from '../json-cutter.ts';
import { NamedFields, namesOf } from '../named-fields.ts';
import { flatten, parseObject } from '../json-fields.ts';
import { jsonLines } from './json-lines.ts';

/** JSON that is not one object a line: objects over several lines, a list of objects, or a list under a name in an outer object. */
export const jsonDocuments: Reader = {
  format: 'json-documents',
  confidence(sample) {
    if (!/^\s*[[{]/.test(sample.text) || jsonLines.confidence(sample) > 0.6) return 0;
    const reader = new JsonDocumentsReader(listOf(sample), { zone: 'UTC', modified: 0 });
    const { good, all } = reader.tried(sample);
    return all === 0 ? 0 : (good / all) * 0.93;
  },
  open: (sample, context) => new JsonDocumentsReader(listOf(sample), context),
};

/** The member of the outermost object whose list holds the records, '' where they stand alone or in an outermost list. */
const listOf = (sample: Sample): string =>
  /^\s*\{(?:\s*"[^"]+"\s*:\s*(?:"(?:[^"\\]|\\.)*"|-?[\d.eE+]+|true|false|null)\s*,)*\s*"([^"]+)"\s*:\s*\[\s*\{/.exec(sample.text)?.[1] ?? '';

class JsonDocumentsReader implements RecordReader {
  private readonly cutter: JsonCutter;
  private readonly named: NamedFields;

  constructor(list: string, context: ReadingContext) {
    this.named = new NamedFields(context);
    this.cutter = new JsonCutter(
      (open) =>
        list === '' ? open.length === 0 || (open.length === 1 && open[0]!.list) : open.length === 2 && open[1]!.list && open[0]!.key === list,
      new Set(),
      (context.memory as JsonCutterState | undefined) ?? null,
    );
  }
  start(): void {}
  begins(): boolean {
    return true;
  }
  cut(view: string, from: number, last: boolean): Cut | null {
    return this.cutter.next(view, from, last);
  }
  save(): JsonCutterState {
    return this.cutter.state();
  }

  /** How many of the sample's pieces are objects with a time. */
  tried(sample: Sample): { good: number; all: number } {
    let good = 0;
    let all = 0;
    for (let at = 0; at < sample.text.length && all < 50;) {
      const cut = this.cutter.next(sample.text, at, false);
      if (!cut) break;
      if (cut.record) {
        all++;
        const object = parseObject(sample.text.slice(at, cut.to));
        const fields: Fields = {};
        if (object) flatten(object, '', fields);
        if (this.named.hasTime(fields)) good++;
      }
      at = cut.to;
    }
    return { good, all };
  }

  read(text: string, draft: Draft): void {
    draft.message = text;
    const object = parseObject(text);
    if (!object) return;
    const fields: Fields = {};
    flatten(object, '', fields);
    const { component, host } = namesOf(fields);
    draft.component = component;
    draft.host = host;
    this.named.read(fields, text, draft);
  }
}
