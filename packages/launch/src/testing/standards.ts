import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { validateXML } from 'xmllint-wasm';
import { ROOT } from '../places.ts';

/** What an event log says against the schema of XES (IEEE 1849), by libxml2. */
export async function problemsOfXes(text: string): Promise<string[]> {
  const schema = await readFile(join(ROOT, 'packages/launch/src/testing/xes.xsd'), 'utf8');
  const { errors } = await validateXML({ xml: [{ fileName: 'strands.xes', contents: text }], schema: [{ fileName: 'xes.xsd', contents: schema }] });
  return errors.map((one) => one.message);
}

interface Message {
  verify(message: object): string | null;
  fromObject(object: object): object;
  encode(message: object): { finish(): Uint8Array };
  decode(bytes: Uint8Array): object;
  toObject(message: object, options: object): object;
}
type Received = { opentelemetry: { proto: { collector: Record<'trace' | 'logs', { v1: Record<string, Message> }> } } };
// made by others from the protocol's own definitions
const received = createRequire(import.meta.url)('@opentelemetry/otlp-transformer/build/src/generated/root') as Received;

/** A request in OTLP/JSON as a receiver by the protocol's definitions understands it, through its binary form and back. @throws what it has against it */
export function asReceived(kind: 'trace' | 'logs', request: object): object {
  const type = received.opentelemetry.proto.collector[kind].v1[kind === 'trace' ? 'ExportTraceServiceRequest' : 'ExportLogsServiceRequest']!;
  // in JSON ids are hexadecimal, in the binary form bytes
  const bytes = JSON.parse(JSON.stringify(request), (key, value: unknown) =>
    /^(?:trace|span|parentSpan)Id$/.test(key) && typeof value === 'string' ? Buffer.from(value, 'hex').toString('base64') : value,
  ) as object;
  const message = type.fromObject(bytes);
  const problem = type.verify(message);
  if (problem !== null) throw new Error(problem);
  return type.toObject(type.decode(type.encode(message).finish()), { longs: String, bytes: Array, enums: Number, defaults: false });
}

/** Names of all members of a value, with how often each occurs. */
export function membersOf(value: unknown, found = new Map<string, number>()): Map<string, number> {
  if (Array.isArray(value)) for (const one of value) membersOf(one, found);
  else if (typeof value === 'object' && value !== null)
    for (const [key, own] of Object.entries(value)) {
      found.set(key, (found.get(key) ?? 0) + 1);
      if (!/Id$/.test(key)) membersOf(own, found);
    }
  return found;
}
