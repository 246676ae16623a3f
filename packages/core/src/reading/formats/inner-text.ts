import type { Draft, ReadingContext } from './shared.ts';
import { sampleOf } from '../sample.ts';
import { clearDraft, emptyDraft } from '../types.ts';
import { learnLayout, TextReader } from './text.ts';

/** Messages of which nearly all begin with a time and a level. */
const SURELY = 0.8;

/** Messages that are lines of text with a head of their own, as what gathers logs hands them on whole. */
export class InnerText {
  private readonly inner = emptyDraft();
  private constructor(private readonly reader: TextReader) {}

  /** For some messages; null where they are no such lines. */
  static of(messages: readonly string[], context: ReadingContext): InnerText | null {
    if (messages.length === 0) return null;
    const firsts = messages.map((message) => message.split('\n', 1)[0]!);
    const layout = learnLayout(sampleOf('', firsts.join('\n'), true), context);
    return layout && layout.share >= SURELY && layout.behind?.hasLevel ? new InnerText(new TextReader(context, layout)) : null;
  }

  /** Takes level, logger, fields and the message proper out of such a message; the record around it keeps its time. */
  read(draft: Draft): void {
    const { inner } = this;
    clearDraft(inner);
    this.reader.read(draft.message, inner);
    if (!inner.understood || inner.message === '') return;
    draft.message = inner.message;
    if (draft.level === 0) draft.level = inner.level;
    if (draft.logger === '') draft.logger = inner.logger;
    for (const name in inner.fields) if (!Object.hasOwn(draft.fields, name)) draft.fields[name] = inner.fields[name]!;
    if (Number.isNaN(draft.took)) draft.took = inner.took;
  }
}
