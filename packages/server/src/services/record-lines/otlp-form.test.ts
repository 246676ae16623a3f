import { describe, expect, test } from '@jest/globals';
import type { RecordText } from '../../repositories/record-texts.ts';
import type { Beside } from './forms.ts';
import { AS_OTLP } from './otlp-form.ts';

const source = { id: 1, path: 'desk/"desk".log' };
const fixedOf = (component: string, level: 'info' | 'error') =>
  AS_OTLP.fixed({ source, component, host: 'app-1', environment: '', level, understood: true, shortened: false, marks: [] }).map((text) => Buffer.from(text)) as [Buffer, Buffer]; // prettier-ignore
/** As the database writes the texts of a record. */
const row = (fixed: string, message: string, logger: string, attributes: object): RecordText => ({
  fixed,
  shape: 0,
  keys: [],
  founder: null,
  carried: false,
  looked: null,
  texts: [
    Buffer.from(
      `{"timeUnixNano":"1795514400123456000","body":{"stringValue":${JSON.stringify(message)}},"attributes":[{"key":"log.record.line","value":{"doubleValue":7}}`,
    ),
    Buffer.from(JSON.stringify(logger)),
    Buffer.from(JSON.stringify(attributes)),
  ],
});
interface Request {
  resourceLogs: { resource: { attributes: { value: { stringValue: string } }[] }; scopeLogs: { scope: { name: string }; logRecords: Record<string, unknown>[] }[] }[]; // prettier-ignore
}
const requests = (rows: RecordText[]): Request[] => {
  const fixed = { info: fixedOf('desk', 'info'), error: fixedOf('desk', 'error'), store: fixedOf('store', 'info') };
  const strand = Buffer.from(AS_OTLP.strand({ strand: 'order:LX-1', flow: null, outcome: null }));
  const besideOf = (one: RecordText): Beside => ({ fixed: fixed[one.fixed as keyof typeof fixed], shape: undefined, identifiers: [], strand: one.fixed === 'error' ? strand : undefined }); // prettier-ignore
  return [...AS_OTLP.pieces(rows, besideOf)].map((piece) => JSON.parse(piece.toString()) as Request);
};

describe('records as requests of OTLP', () => {
  test('stand by who wrote them and by logger, whatever they say', () => {
    const [told, ...more] = requests([
      row('info', 'a "b"\n', 'd.Main', {}),
      row('store', 'packed', 'd.Main', { queue: 'in' }),
      row('error', 'late', 'd.Main', { took: 12 }),
      row('info', 'ü', '', {}),
    ]);
    expect(more).toEqual([]);
    expect(told!.resourceLogs.map((one) => one.resource.attributes[0]!.value.stringValue)).toEqual(['desk', 'store']);
    const [main, none] = told!.resourceLogs[0]!.scopeLogs;
    expect([main!.scope.name, none!.scope.name]).toEqual(['d.Main', '']);
    expect(main!.logRecords.map((one) => one.body)).toEqual([{ stringValue: 'a "b"\n' }, { stringValue: 'late' }]);
    expect(main!.logRecords[0]).not.toHaveProperty('traceId');
    expect(main!.logRecords[1]).toMatchObject({ severityNumber: 17, severityText: 'ERROR', traceId: expect.stringMatching(/^[0-9a-f]{32}$/) });
    expect(main!.logRecords[1]!.attributes).toEqual([
      { key: 'log.record.line', value: { doubleValue: 7 } },
      { key: 'took', value: { doubleValue: 12 } },
      { key: 'log.file.path', value: { stringValue: 'desk/"desk".log' } },
    ]);
  });

  test('come in pieces, of which each is a whole request', () => {
    const rows = Array.from({ length: 1000 }, (_, i) => row('info', 'x'.repeat(1000) + String(i), 'd', {}));
    const told = requests(rows);
    expect(told.length).toBeGreaterThan(3);
    expect(told.flatMap((one) => one.resourceLogs.flatMap((own) => own.scopeLogs.flatMap((scope) => scope.logRecords)))).toHaveLength(1000);
  });

  test('are none where there are no records', () => expect(requests([])).toEqual([]));
});
