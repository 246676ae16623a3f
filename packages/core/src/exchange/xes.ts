import type { ExchangedStrand } from './strand.ts';

const escaped = (text: string): string =>
  text
    // characters that XML 1.0 cannot hold
    .replace(/[^\t\n\r\u0020-\ud7ff\ue000-\ufffd\u{10000}-\u{10ffff}]/gu, '\ufffd')
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;');
const attribute = (kind: 'string' | 'date' | 'float' | 'int', key: string, value: string | number): string => `<${kind} key="${escaped(key)}" value="${escaped(String(value))}"/>`; // prettier-ignore
/** Milliseconds are as exact as most readers go. */
const date = (key: string, iso: string): string => attribute('date', key, new Date(iso).toISOString().replace('Z', '+00:00'));

/** Beginning of an event log in XES (IEEE 1849): each strand is a trace, each step an event that started and one that was complete. */
export const XES_HEAD = `<?xml version="1.0" encoding="UTF-8"?>
<log xes.version="1849.2016" xes.features="" xmlns="http://www.xes-standard.org/">
<extension name="Concept" prefix="concept" uri="http://www.xes-standard.org/concept.xesext"/>
<extension name="Time" prefix="time" uri="http://www.xes-standard.org/time.xesext"/>
<extension name="Lifecycle" prefix="lifecycle" uri="http://www.xes-standard.org/lifecycle.xesext"/>
<extension name="Organizational" prefix="org" uri="http://www.xes-standard.org/org.xesext"/>
<global scope="trace"><string key="concept:name" value=""/></global>
<global scope="event"><string key="concept:name" value=""/><date key="time:timestamp" value="1970-01-01T00:00:00.000+00:00"/><string key="lifecycle:transition" value="complete"/></global>
<classifier name="component" keys="concept:name lifecycle:transition"/>
`;
export const XES_TAIL = '</log>\n';

/** One strand as a trace; events in order of time. */
export function xesTrace(strand: ExchangedStrand): string {
  const events = strand.steps
    .flatMap((step) => [
      { at: step.startedAt, order: 0, step, transition: 'start' },
      { at: step.endedAt, order: 1, step, transition: 'complete' },
    ])
    .sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : a.step.id - b.step.id || a.order - b.order));
  const own = [
    attribute('string', 'concept:name', strand.name),
    attribute('string', 'fadenweg:strand', strand.id),
    attribute('string', 'fadenweg:flow', strand.flowLabel),
    attribute('string', 'fadenweg:outcome', strand.outcome),
    ...Object.entries(strand.attributes).map(([key, value]) => attribute('string', `fadenweg:${key}`, value)),
  ];
  const lines = events.map(({ at, step, transition }) =>
    [
      '<event>',
      attribute('string', 'concept:name', step.component),
      date('time:timestamp', at),
      attribute('string', 'lifecycle:transition', transition),
      attribute('string', 'concept:instance', step.id),
      ...(step.host === '' ? [] : [attribute('string', 'org:resource', step.host)]),
      '</event>',
    ].join(''),
  );
  return `<trace>${own.join('')}\n${lines.join('\n')}\n</trace>\n`;
}
