import type { ReadingSample } from './samples.ts';

/** Formats whose records are pieces of documents, and tables. */
export const DOCUMENT_SAMPLES: ReadingSample[] = [
  {
    name: 'CSV with a header, line breaks inside quotes',
    format: 'table',
    zone: 'UTC',
    text: 'timestamp,level,logger,message,order\n2026-11-24T09:41:58.912Z,INFO,lens.intake,"order taken, ""rush""",LX-204817\n2026-11-24T09:41:59Z,ERROR,lens.intake,"failed\nat step 2",LX-204818\n',
    records: [
      {
        at: '2026-11-24T09:41:58.912000Z',
        level: 'info',
        message: 'order taken, "rush"',
        logger: 'lens.intake',
        fields: { order: 'LX-204817' },
      },
      { at: '2026-11-24T09:41:59.000000Z', level: 'error', message: 'failed\nat step 2', fields: { order: 'LX-204818' } },
    ],
  },
  {
    name: 'a table with semicolons, date and clock in columns of their own',
    format: 'table',
    text: 'Datum;Uhrzeit;Stufe;Meldung;Maschine\n24.11.2026;10:41:58;Warnung;Band läuft heiß;cell-1\n24.11.2026;10:42:58;Fehler;Band steht;cell-1\n',
    records: [
      { at: '2026-11-24T09:41:58.000000Z', level: 'warning', message: 'Band läuft heiß', fields: { Maschine: 'cell-1' } },
      { at: '2026-11-24T09:42:58.000000Z', level: 'error', message: 'Band steht' },
    ],
  },
  {
    name: 'tabs, and a header that comes again with other columns',
    format: 'table',
    zone: 'UTC',
    text: 'ts\tlevel\tmsg\n2026-11-24 09:41:58\tinfo\tone of them\n2026-11-24 09:41:58\tinfo\ttwo of them\nts\thost\tlevel\tmsg\n2026-11-24 09:41:59\tapp-1\twarn\tthree of them\n',
    records: [
      { at: '2026-11-24T09:41:58.000000Z', level: 'info', message: 'one of them' },
      { at: '2026-11-24T09:41:58.000000Z', level: 'info', message: 'two of them' },
      { at: '2026-11-24T09:41:59.000000Z', level: 'warning', message: 'three of them', fields: { host: 'app-1' } },
    ],
  },
  {
    name: 'XML of java.util.logging, with a DTD that is not fetched',
    format: 'xml-events',
    text: '<?xml version="1.0" encoding="UTF-8" standalone="no"?>\n<!DOCTYPE log SYSTEM "logger.dtd">\n<log>\n<record>\n  <date>2026-11-24T09:41:58.912345Z</date>\n  <millis>1795513318912</millis>\n  <nanos>345000</nanos>\n  <sequence>0</sequence>\n  <logger>example.lens</logger>\n  <level>WARNING</level>\n  <class>example.Lens</class>\n  <method>grind</method>\n  <thread>1</thread>\n  <message>grinding &lt;LX-204817&gt; is slow</message>\n</record>\n<record>\n  <date>2026-11-24T09:41:59Z</date>\n  <millis>1795513319000</millis>\n  <nanos>0</nanos>\n  <sequence>1</sequence>\n  <logger>example.lens</logger>\n  <level>SEVERE</level>\n  <message>broke off</message>\n  <exception>\n    <message>java.lang.IllegalStateException: no</message>\n    <frame>\n      <class>example.Lens</class>\n      <method>grind</method>\n      <line>88</line>\n    </frame>\n  </exception>\n</record>\n</log>\n',
    records: [
      {
        at: '2026-11-24T09:41:58.912345Z',
        level: 'warning',
        message: 'grinding <LX-204817> is slow',
        logger: 'example.lens',
        fields: { thread: 1, method: 'grind' },
      },
      {
        at: '2026-11-24T09:41:59.000000Z',
        level: 'error',
        message: 'broke off\njava.lang.IllegalStateException: no\n\tat example.Lens.grind(88)',
      },
    ],
  },
  {
    name: 'XML events in a namespace without a root, attributes and properties',
    format: 'xml-events',
    text: '<log:event logger="example.rx" timestamp="1795513318912" level="INFO" thread="exec-1">\n  <log:message><![CDATA[checked <LX-204817>]]></log:message>\n  <log:properties><log:data name="trace_id" value="6f3c"/></log:properties>\n</log:event>\n<log:event logger="example.rx" timestamp="1795513319001" level="ERROR" thread="exec-1">\n  <log:message><![CDATA[axis above 180]]></log:message>\n</log:event>\n',
    records: [
      {
        at: '2026-11-24T09:41:58.912000Z',
        level: 'info',
        message: 'checked <LX-204817>',
        logger: 'example.rx',
        fields: { 'properties.trace_id': '6f3c', thread: 'exec-1' },
      },
      { at: '2026-11-24T09:41:59.001000Z', level: 'error', message: 'axis above 180' },
    ],
  },
  {
    name: 'Windows event XML, all on one line',
    format: 'xml-events',
    text: "<Events><Event xmlns='urn:example:event'><System><Provider Name='LensSpooler'/><EventID>1014</EventID><Level>2</Level><TimeCreated SystemTime='2026-11-24T09:41:58.9123456Z'/><Channel>Application</Channel><Computer>PRN-1</Computer></System><EventData><Data Name='Label'>LX-204817</Data></EventData></Event><Event xmlns='urn:example:event'><System><Provider Name='LensSpooler'/><EventID>1000</EventID><Level>4</Level><TimeCreated SystemTime='2026-11-24T09:42:58Z'/><Computer>PRN-1</Computer></System></Event></Events>",
    records: [
      {
        at: '2026-11-24T09:41:58.912345Z',
        level: 'error',
        message: 'LensSpooler 1014 Label=LX-204817',
        host: 'PRN-1',
        component: 'LensSpooler',
        fields: { EventID: 1014, Label: 'LX-204817', Channel: 'Application' },
      },
      { at: '2026-11-24T09:42:58.000000Z', level: 'info', message: 'LensSpooler 1000' },
    ],
  },
  {
    name: 'XES: the trace’s name goes with each event',
    format: 'xes',
    text: '<?xml version="1.0"?>\n<log xes.version="1.0">\n<global scope="event"><string key="concept:name" value="x"/></global>\n<trace><string key="concept:name" value="LX-204817"/>\n<event><string key="concept:name" value="grind"/><string key="org:resource" value="cell-1"/><date key="time:timestamp" value="2026-11-24T10:41:58.912+01:00"/></event>\n<event><string key="concept:name" value="coat"/><string key="lifecycle:transition" value="start"/><date key="time:timestamp" value="2026-11-24T10:42:58+01:00"/></event>\n</trace>\n<trace><string key="concept:name" value="größe-2"/><event><string key="concept:name" value="grind"/><date key="time:timestamp" value="2026-11-24T10:43:58+01:00"/></event></trace>\n</log>',
    records: [
      { at: '2026-11-24T09:41:58.912000Z', level: 'info', message: 'grind', logger: 'cell-1', fields: { case: 'LX-204817' } },
      { at: '2026-11-24T09:42:58.000000Z', level: 'info', message: 'coat start', fields: { case: 'LX-204817' } },
      { at: '2026-11-24T09:43:58.000000Z', level: 'info', message: 'grind', fields: { case: 'größe-2' } },
    ],
  },
  {
    name: 'OTLP JSON: spans with begin and end, and logs',
    format: 'otlp-json',
    text: '{"resourceSpans":[{"resource":{"attributes":[{"key":"service.name","value":{"stringValue":"shop-portal"}},{"key":"host.name","value":{"stringValue":"app-1"}}]},"scopeSpans":[{"scope":{"name":"http"},"spans":[{"traceId":"5b8efff798038103d269b633813fc60c","spanId":"eee19b7ec3c1b174","parentSpanId":"","name":"POST /orders","kind":2,"startTimeUnixNano":"1795513318912345678","endTimeUnixNano":"1795513319712345678","attributes":[{"key":"http.response.status_code","value":{"intValue":"503"}}],"status":{"code":2,"message":"no blanks"}}]}]}]}\n{"resourceLogs":[{"resource":{"attributes":[{"key":"service.name","value":{"stringValue":"relay"}}]},"scopeLogs":[{"scope":{},"logRecords":[{"timeUnixNano":"1795513320000000000","severityNumber":13,"body":{"stringValue":"queue is deep"},"traceId":"5b8efff798038103d269b633813fc60c"}]}]}]}\n',
    records: [
      {
        at: '2026-11-24T09:41:58.912345Z',
        level: 'error',
        message: 'POST /orders: no blanks',
        took: 800_000,
        component: 'shop-portal',
        host: 'app-1',
        fields: { traceId: '5b8efff798038103d269b633813fc60c', 'http.response.status_code': 503, 'span.kind': 'server' },
      },
      { at: '2026-11-24T09:42:00.000000Z', level: 'warning', message: 'queue is deep', component: 'relay' },
    ],
  },
  {
    name: 'a list of JSON objects over several lines',
    format: 'json-documents',
    text: '[\n  {\n    "time": "2026-11-24T09:41:58Z",\n    "level": "warn",\n    "msg": "a }] in a text",\n    "order": {"id": "LX-204817"}\n  },\n  {"time": "2026-11-24T09:41:59Z", "level": "info", "msg": "all on one line"}\n]\n',
    records: [
      { at: '2026-11-24T09:41:58.000000Z', level: 'warning', message: 'a }] in a text', fields: { 'order.id': 'LX-204817' } },
      { at: '2026-11-24T09:41:59.000000Z', level: 'info', message: 'all on one line' },
    ],
  },
  {
    name: 'records in a list under a name',
    format: 'json-documents',
    text: '{"next": "abc", "events": [{"timestamp": 1795513318912, "severity": "ERROR", "message": "stage failed"}, {"timestamp": 1795513319912, "severity": "INFO", "message": "on again"}]}',
    records: [
      { at: '2026-11-24T09:41:58.912000Z', level: 'error', message: 'stage failed' },
      { at: '2026-11-24T09:41:59.912000Z', level: 'info', message: 'on again' },
    ],
  },
  {
    name: 'JSON lines of a container, service and host by name',
    format: 'json-lines',
    text: '{"instant":{"epochSecond":1795513318},"level":"WARN","loggerName":"example.rx","message":"axis is odd","service":{"name":"rx-check"},"host":{"name":"app-2"}}',
    records: [
      { at: '2026-11-24T09:41:58.000000Z', level: 'warning', message: 'axis is odd', logger: 'example.rx', component: 'rx-check', host: 'app-2' },
    ],
  },
];
