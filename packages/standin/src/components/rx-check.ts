import { localText, offsetText, type Micros } from '../writing/times.ts';

export const RX_CHECK = 'rx-check/rx-check.xml';
const escape = (text: string): string => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;');
/** Rules for prescriptions: XML log events of several lines each, without a root. */
export const rxEvent = (at: Micros, level: string, thread: string, message: string, data: Record<string, string>): string =>
  [
    `<event time="${localText(at, 'T')}${offsetText(at)}" level="${level}" logger="example.brillmoor.rxcheck.Rules" thread="${thread}">`,
    `  <message>${escape(message)}</message>`,
    ...Object.entries(data).map(([name, value]) => `  <data name="${name}" value="${escape(value)}"/>`),
    '</event>',
  ].join('\n');
