import { attribute, traceIdOf } from './otlp-parts.ts';

/** By level, as OTLP counts severity. */
const SEVERITY: Readonly<Record<string, number>> = { none: 0, trace: 1, debug: 5, info: 9, warning: 13, error: 17, fatal: 21 };

/** Who wrote records, as a resource of OTLP. All of these functions give JSON as text: so much is written of it that objects would cost more than all the rest. */
export function otlpResource(component: string, host: string, environment: string): string {
  const about = [['service.name', component], ['host.name', host], ['deployment.environment.name', environment]] as const; // prettier-ignore
  return JSON.stringify({ attributes: about.filter(([, value]) => value !== '').map(([key, value]) => attribute(key, value)) });
}
/** The members of a log record that tell how bad it is. */
export const otlpSeverity = (level: string): string =>
  `"severityNumber":${SEVERITY[level] ?? 0},"severityText":"${level === 'none' ? '' : level.toUpperCase()}"`;

/** Names of attributes as they are written, since few are used again and again. */
const written = new Map<string, string>();
const MOST_WRITTEN = 10_000;

export function otlpAttribute(key: string, value: unknown): string {
  let name = written.get(key);
  if (name === undefined) {
    if (written.size >= MOST_WRITTEN) written.clear();
    written.set(key, (name = `{"key":${JSON.stringify(key)},"value":{"`));
  }
  if (typeof value === 'number') return `${name}doubleValue":${value}}}`;
  return `${name}stringValue":${JSON.stringify(typeof value === 'string' ? value : JSON.stringify(value))}}}`;
}
/** @param members an object @returns its members as attributes, a comma before each of them */
export function otlpAttributes(members: Readonly<Record<string, unknown>>): string {
  let text = '';
  for (const key in members) text += `,${otlpAttribute(key, members[key])}`;
  return text;
}
/** The member of a log record that names the trace which its strand is. */
export const otlpTraceMember = (strand: string): string => `"traceId":"${traceIdOf(strand)}"`;
