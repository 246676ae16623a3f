import type { Draft, Fields, Reader, RecordReader, ReadingContext } from './shared.ts';
import { fieldValue } from '../keyvalues.ts';
import { NamedFields, namesOf } from '../named-fields.ts';

/** A label before its value: `status:200`, `status=200`. */
const CELL = /^([\w.@-]{1,80})([:=])(.*)$/s;
const FEWEST_CELLS = 3;
const ASKED = ['status', 'req', 'uri'];

/** Lines of cells with tabs between them, each with its label before it (LTSV, also with equals signs). */
export const labelled: Reader = {
  format: 'labelled-tabs',
  confidence(sample) {
    const lines = sample.lines.filter((line) => line !== '').slice(0, 200);
    if (lines.length === 0) return 0;
    const named = new NamedFields({ zone: 'UTC', modified: 0 });
    const good = lines.filter((line) => {
      const fields = cellsOf(line);
      return fields !== null && named.hasTime(fields);
    }).length;
    return (good / lines.length) * 0.97;
  },
  open: (_sample, context) => new LabelledReader(context),
};

/** The cells of a line by their labels; null where most of them have none. A word without a label may stand before them. */
function cellsOf(line: string): Fields | null {
  if (!line.includes('\t')) return null;
  const cells = line.split('\t');
  const fields: Fields = {};
  let count = 0;
  for (const cell of cells) {
    const hit = CELL.exec(cell);
    if (!hit) continue;
    count++;
    if (hit[3] !== '' && hit[3] !== '-') fields[hit[1]!] = fieldValue(hit[3]!);
  }
  return count >= FEWEST_CELLS && count >= cells.length - 1 ? fields : null;
}

class LabelledReader implements RecordReader {
  private readonly named: NamedFields;
  constructor(context: ReadingContext) {
    this.named = new NamedFields(context);
  }
  start(): void {}
  begins(line: string): boolean {
    const first = line.charCodeAt(0);
    return first !== 32 && first !== 9;
  }

  read(text: string, draft: Draft): void {
    const breakAt = text.indexOf('\n');
    const line = breakAt < 0 ? text : text.slice(0, breakAt);
    const fields = cellsOf(line);
    if (!fields) {
      draft.message = text;
      return;
    }
    const { component, host } = namesOf(fields);
    draft.component = component;
    // a server's own lines name the host that asked
    draft.host = ASKED.some((name) => name in fields) ? '' : host;
    this.named.read(fields, line, draft);
    if (breakAt >= 0) draft.message += text.slice(breakAt);
  }
}
