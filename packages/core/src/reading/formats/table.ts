import { emptyDraft } from '../types.ts';
import type { Draft, Fields, Reader, RecordReader, ReadingContext, Sample } from './shared.ts';
import { csvCells, quotesBalanced } from '../csv.ts';
import { fieldValue } from '../keyvalues.ts';
import { NamedFields } from '../named-fields.ts';

const DELIMITERS = [',', ';', '\t', '|'];
const FEWEST_COLUMNS = 3;

interface Shape {
  delimiter: string;
  names: string[];
}

/** CSV and TSV with a header (RFC 4180); cells may hold line breaks inside quotes. A header that comes again, changed, counts from there on. */
export const table: Reader = {
  format: 'table',
  confidence(sample) {
    const shape = headerOf(sample);
    if (!shape) return 0;
    const reader = new TableReader({ zone: 'UTC', modified: 0 }, shape);
    let records = 0;
    let good = 0;
    let open = '';
    for (const line of sample.lines.slice(1, 300)) {
      open = open === '' ? line : `${open}\n${line}`;
      if (open === '' || !quotesBalanced(open)) continue;
      records++;
      const draft = emptyDraft();
      reader.read(open, draft);
      if (draft.understood || draft.framing) good++;
      open = '';
    }
    return records === 0 ? 0 : (good / records) * 0.94;
  },
  open: (sample, context) => new TableReader(context, (context.memory as Shape | undefined) ?? headerOf(sample) ?? { delimiter: ',', names: [] }),
};

/** The delimiter and the names of a first line that reads as a header: distinct words, none of them a number or a time. */
function headerOf(sample: Sample): Shape | null {
  return shapeOf(sample.lines[0] ?? '');
}

function shapeOf(line: string): Shape | null {
  let best: Shape | null = null;
  for (const delimiter of DELIMITERS) {
    const names = csvCells(line, delimiter).map((cell) => cell.trim());
    if (names.length >= FEWEST_COLUMNS && names.length > (best?.names.length ?? 0)) best = { delimiter, names };
  }
  if (!best || new Set(best.names).size !== best.names.length) return null;
  return best.names.every((name) => /^[\p{L}_@#][\p{L}\d_ .@#()/%-]{0,60}$/u.test(name)) ? best : null;
}

class TableReader implements RecordReader {
  private readonly named: NamedFields;
  private balanced = true;

  constructor(
    context: ReadingContext,
    private shape: Shape,
  ) {
    this.named = new NamedFields(context);
  }
  start(first: string): void {
    this.balanced = quotesBalanced(first);
  }
  begins(line: string): boolean {
    if (this.balanced) return true;
    this.balanced = quotesBalanced(line, this.balanced);
    return false;
  }
  save(): Shape {
    return this.shape;
  }

  read(text: string, draft: Draft): void {
    draft.message = text;
    const fields = this.fieldsOf(text);
    if (fields && this.named.read(fields, text, draft)) return;
    const header = shapeOf(text);
    if (!header || header.delimiter !== this.shape.delimiter) return;
    this.shape = header;
    draft.framing = true;
  }

  private fieldsOf(text: string): Fields | null {
    const { names, delimiter } = this.shape;
    const cells = csvCells(text, delimiter);
    if (cells.length !== names.length) return null;
    const fields: Fields = {};
    for (let i = 0; i < names.length; i++) if (cells[i] !== '') fields[names[i]!] = fieldValue(cells[i]!);
    return fields;
  }
}
