import { describe, expect, test } from '@jest/globals';
import type { Frame } from '@fadenweg/core/reading';
import { RowReader, rowEnd } from '../../database/copy-out.ts';
import { RECORD, type RecordRow } from '../../evidence/record-layout.ts';
import { byteOfId, FLAG } from '../../evidence/record-id.ts';
import { BatchBuilder } from './batch-builder.ts';
import type { ReadingJob } from './messages.ts';

const kind = {
  id: 3,
  name: 'order',
  label: 'Order',
  role: 'business' as const,
  patterns: ['LW-\\d{5}'],
  fields: [],
  normal: { case: 'keep' as const, separators: 'keep' as const, leadingZeros: 'keep' as const, phone: false },
  scope: 'global' as const,
  leaseMs: null,
};
const job: ReadingJob = {
  sourceId: 77,
  file: null,
  fileFrom: 0,
  growing: false,
  size: 1000,
  path: 'desk.log',
  format: 'json-lines',
  encoding: 'utf-8',
  zone: 'UTC',
  hints: { modified: Date.UTC(2026, 10, 24) * 1000 },
  componentId: 5,
  component: 'desk',
  hostId: 9,
  host: 'lw-1',
  ownComponents: false,
  ownHosts: false,
  from: { byte: 0, line: 1 } as ReadingJob['from'],
  state: null,
};

/** What a builder wrote, as the layout reads it. */
function rowsOf(lines: readonly string[]): RecordRow[] {
  const builder = new BatchBuilder(job, { kinds: [kind], kindIds: [kind.id], rules: [], clocks: [], parted: [] }, lines.join('\n'), true);
  let byte = 0;
  for (const [i, text] of lines.entries()) {
    const byteTo = byte + Buffer.byteLength(text) + 1;
    builder.add({ text, byteFrom: byte, byteTo, line: i + 1, cut: false } as Frame);
    byte = byteTo;
  }
  const { records } = builder.take({ byte, line: lines.length + 1 } as ReadingJob['from'], null, true);
  const reader = new RowReader();
  reader.buffer = Buffer.from(records);
  const rows: RecordRow[] = [];
  for (let at = 19; reader.buffer.readInt16BE(at) > 0; at = rowEnd(reader.buffer, at)) {
    expect(reader.buffer.readInt16BE(at)).toBe(RECORD.names.length);
    reader.position = at + 2;
    rows.push(RECORD.read(reader));
    expect(reader.position).toBe(rowEnd(reader.buffer, at));
  }
  return rows;
}

describe('rows of records', () => {
  test('what the builder writes by hand stands in the columns that the layout tells', () => {
    const line = { time: '2026-11-24T10:15:30.123456Z', level: 'error', logger: 'desk.Orders', thread: 't-4', msg: 'order LW-10042 refused after 250 ms', duration_ms: 250, pid: 812 }; // prettier-ignore
    const bare = { time: '2026-11-24T10:15:31Z', level: 'info', msg: 'ready' };
    const [full, plain] = rowsOf([JSON.stringify(line), JSON.stringify(bare)]);
    expect(full).toMatchObject({
      at: Date.UTC(2026, 10, 24, 10, 15, 30, 123) * 1000 + 456,
      source_id: 77,
      line: 1,
      length: JSON.stringify(line).length + 1,
      component_id: 5,
      host_id: 9,
      level: 5,
      flags: FLAG.understood,
      took: 250_000,
      logger: 'desk.Orders',
      time_text: '2026-11-24T10:15:30.123456Z',
      message: line.msg,
      attributes: { pid: 812, thread: 't-4' },
      shifted: null,
    });
    expect(byteOfId(full!.id)).toBe(0);
    expect(full!.keys).toEqual([full!.home]);
    expect(full!.lane).not.toBeNull();
    expect(plain).toMatchObject({ line: 2, took: null, home: null, keys: null, attributes: null, logger: '', message: 'ready' });
    expect(byteOfId(plain!.id)).toBe(JSON.stringify(line).length + 1);
    expect(full!.shape).not.toBe(plain!.shape);
  });
});
