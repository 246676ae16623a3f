import type { Cut, Draft, Reader, ReadingContext } from './shared.ts';
import { ElementCutter, fieldsOf, looksLikeXml } from './xml-events.ts';
import { decodeView } from '../encoding.ts';
import { NamedFields } from '../named-fields.ts';
import { xmlTree } from '../xml-tree.ts';

/** Event logs in XES (IEEE 1849): each event is a record, the name of its trace is the field `case`. */
export const xes: Reader = {
  format: 'xes',
  confidence: (sample) => (looksLikeXml(sample) && /<(?:\w+:)?trace[\s>]/.test(sample.text) && /key="time:timestamp"/.test(sample.text) ? 0.97 : 0),
  open: (sample, context) => new XesReader(/<((?:\w+:)?event)[\s>]/.exec(sample.text)?.[1] ?? 'event', context),
};

class XesReader {
  private readonly cutter: ElementCutter;
  private readonly named: NamedFields;
  private trace: string;

  constructor(element: string, context: ReadingContext) {
    this.cutter = new ElementCutter(element);
    this.named = new NamedFields(context);
    this.trace = typeof context.memory === 'string' ? context.memory : '';
  }
  start(): void {}
  begins(): boolean {
    return true;
  }
  save(): string {
    return this.trace;
  }

  cut(view: string, from: number, last: boolean): Cut | null {
    const cut = this.cutter.next(view, from, last);
    if (cut && !cut.element) {
      const between = view.slice(from, cut.to);
      const opened = between.lastIndexOf('<trace');
      const name = opened < 0 ? null : /key="concept:name"\s+value="([^"]*)"/.exec(between.slice(opened));
      if (opened >= 0) this.trace = decodeView(name?.[1] ?? '');
      // attributes of traces, and what an event log declares about itself
      return { to: cut.to, record: cut.record };
    }
    return cut;
  }

  read(text: string, draft: Draft): void {
    draft.message = text;
    const tree = xmlTree(text.trim());
    if (!tree) return;
    const fields = fieldsOf(tree);
    const time = fields['time:timestamp'];
    if (typeof time !== 'string' || this.named.times.readAny(time, 0)?.end !== time.length) return;
    draft.at = this.named.times.at;
    this.named.times.reached();
    draft.timeText = time;
    delete fields['time:timestamp'];
    const activity = String(fields['concept:name'] ?? '');
    draft.message = [activity, fields['lifecycle:transition'] ?? ''].join(' ').trim() || text;
    if (this.trace !== '') fields.case = this.trace;
    const resource = fields['org:resource'];
    if (resource !== undefined) draft.logger = String(resource);
    draft.fields = fields;
    draft.level = 3;
    draft.understood = true;
  }
}
