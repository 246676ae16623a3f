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

export function otlpAttribute(key: string, value: unknown): string {
  const told = typeof value === 'number' ? { doubleValue: value } : { stringValue: typeof value === 'string' ? value : JSON.stringify(value) };
  return JSON.stringify({ key, value: told });
}

/** A member of an object with a plain value, and what follows it. */
const MEMBER = /("[^"\\]*(?:\\.[^"\\]*)*"):(?:("[^"\\]*(?:\\.[^"\\]*)*")|(-?\d[\d.eE+-]*)|(true|false|null))(?:,(?=")|\}$)/y;

/**
 * A hot path: names and values are taken over as they are written, without being read.
 *
 * @param json an object as JSON, without blanks around its values; letters beyond ASCII may stand as single bytes of UTF-8
 * @returns its members as attributes, a comma before each of them
 */
export function otlpAttributes(json: string): string {
  let text = '';
  for (let at = 1; at < json.length; at = MEMBER.lastIndex) {
    MEMBER.lastIndex = at;
    const hit = MEMBER.exec(json);
    if (!hit) return json === '{}' ? '' : readAttributes(json);
    const [, key, words, number, word] = hit;
    if (words !== undefined) text += `,{"key":${key},"value":{"stringValue":${words}}}`;
    else if (number !== undefined) text += `,{"key":${key},"value":{"doubleValue":${number}}}`;
    else text += `,{"key":${key},"value":{"stringValue":"${word}"}}`;
  }
  return text;
}
/** The same of any object, with others in it. */
const readAttributes = (json: string): string =>
  Object.entries(JSON.parse(json) as Record<string, unknown>).reduce((text, [key, value]) => `${text},${otlpAttribute(key, value)}`, '');
/** The member of a log record that names the trace which its strand is. */
export const otlpTraceMember = (strand: string): string => `"traceId":"${traceIdOf(strand)}"`;
