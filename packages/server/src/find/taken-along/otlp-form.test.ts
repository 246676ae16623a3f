import { describe, expect, test } from '@jest/globals';
import type { RecordText } from '../../evidence/record-texts.ts';
import type { Beside } from './forms.ts';
import { AS_OTLP } from './otlp-form.ts';

const source = { id: 1, path: 'desk/"desk".log' };
const fixedOf = (component: string, level: 'info' | 'error', logger: string): Buffer[] =>
  AS_OTLP.fixed({ source, component, host: 'app-1', environment: '', level, logger, understood: true, timeFrom: 'told', shortened: false, marks: [], weight: 'slight' }).map((text) => Buffer.from(text)); // prettier-ignore
const FIXED = {
  info: fixedOf('desk', 'info', 'd.Main'),
  error: fixedOf('desk', 'error', 'd.Main'),
  store: fixedOf('store', 'info', 'd.Main'),
  nameless: fixedOf('desk', 'info', ''),
};
/** As the database writes the texts of a record. */
const row = (shared: keyof typeof FIXED, message: string, attributes: object): RecordText => ({
  shared,
  at: 1795514400123456,
  id: 7,
  shape: 0,
  keys: [],
  founder: null,
  carried: false,
  looked: null,
  texts: [
    Buffer.from(`000","body":{"stringValue":${JSON.stringify(message)}},"attributes":[{"key":"log.record.line","value":{"doubleValue":7}}`),
    Buffer.from(JSON.stringify(attributes)),
  ],
});
interface Request {
  resourceLogs: { resource: { attributes: { value: { stringValue: string } }[] }; scopeLogs: { scope: { name: string }; logRecords: Record<string, unknown>[] }[] }[]; // prettier-ignore
}
const requests = (rows: RecordText[]): Request[] => {
  const [strand, none] = [{ strand: 'order:LX-1', flow: null, outcome: null }, null].map((of) => Buffer.from(AS_OTLP.strand(of, false))) as [
    Buffer,
    Buffer,
  ];
  const besideOf = (one: RecordText): Beside => ({ fixed: FIXED[one.shared as keyof typeof FIXED], shape: undefined, identifiers: [], copies: Buffer.alloc(0), strand: one.shared === 'error' ? strand : none }); // prettier-ignore
  return [...AS_OTLP.pieces(rows, besideOf)].map((piece) => JSON.parse(piece.toString()) as Request);
};

describe('records as requests of OTLP', () => {
  test('stand by who wrote them and by logger, whatever they say', () => {
    const [told, ...more] = requests([
      row('info', 'a "b"\n', {}),
      row('store', 'packed', { queue: 'in' }),
      row('error', 'late', { took: 12 }),
      row('nameless', 'ü', {}),
    ]);
    expect(more).toEqual([]);
    expect(told!.resourceLogs.map((one) => one.resource.attributes[0]!.value.stringValue)).toEqual(['desk', 'store']);
    const [main, none] = told!.resourceLogs[0]!.scopeLogs;
    expect([main!.scope.name, none!.scope.name]).toEqual(['d.Main', '']);
    expect(main!.logRecords.map((one) => one.body)).toEqual([{ stringValue: 'a "b"\n' }, { stringValue: 'late' }]);
    expect(main!.logRecords[0]).not.toHaveProperty('traceId');
    expect(main!.logRecords[0]!.timeUnixNano).toBe('1795514400123456000');
    expect(main!.logRecords[1]).toMatchObject({ severityNumber: 17, severityText: 'ERROR', traceId: expect.stringMatching(/^[0-9a-f]{32}$/) });
    expect(main!.logRecords[1]!.attributes).toEqual([
      { key: 'log.record.line', value: { doubleValue: 7 } },
      { key: 'took', value: { doubleValue: 12 } },
      { key: 'log.file.path', value: { stringValue: 'desk/"desk".log' } },
    ]);
  });

  test('come in pieces, of which each is a whole request', () => {
    const rows = Array.from({ length: 1000 }, (_, i) => row('info', 'x'.repeat(1000) + String(i), {}));
    const told = requests(rows);
    expect(told.length).toBeGreaterThan(3);
    expect(told.flatMap((one) => one.resourceLogs.flatMap((own) => own.scopeLogs.flatMap((scope) => scope.logRecords)))).toHaveLength(1000);
  });

  test('are none where there are no records', () => expect(requests([])).toEqual([]));
});
