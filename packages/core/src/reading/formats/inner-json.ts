import type { Draft, Fields, ReadingContext } from './shared.ts';
import { NamedFields } from '../named-fields.ts';
import { emptyDraft } from '../types.ts';
import { flatten, parseObject } from '../json-fields.ts';

/** A message that is itself a record in JSON, as programs hand it to what gathers their logs. */
export class InnerJson {
  private readonly named: NamedFields;
  private readonly inner = emptyDraft();
  constructor(context: ReadingContext) {
    this.named = new NamedFields(context);
  }

  /** Puts message, level, logger and fields of such a message into the draft; what the record around it says itself stays. */
  read(draft: Draft): void {
    const { message } = draft;
    if (message.charCodeAt(0) !== 123 || !message.endsWith('}')) return;
    const object = parseObject(message);
    if (!object) return;
    const fields: Fields = {};
    flatten(object, '', fields);
    const { inner } = this;
    inner.level = 0;
    inner.logger = '';
    inner.message = message;
    // a time of its own is needed for its words to count: otherwise it is what the message is about
    this.named.read(this.named.hasTime(fields) ? fields : { ...fields, '@t': '1970-01-01T00:00:00Z' }, message, inner);
    draft.message = inner.message;
    if (draft.level === 0) draft.level = inner.level;
    if (draft.logger === '' || draft.logger === draft.component) draft.logger = inner.logger || draft.logger;
    for (const name in inner.fields) if (!Object.hasOwn(draft.fields, name)) draft.fields[name] = inner.fields[name]!;
    if (Number.isNaN(draft.took)) draft.took = inner.took;
  }
}
