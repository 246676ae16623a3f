import { readWhole } from '../drawn-heads.ts';
import { LAYOUTS } from './layouts.ts';
import { writtenBy } from './written.ts';

/** One in so many kinds of writers was kept apart while rules were chosen, and scored once: docs/reading.md tells the result. */
const APART = 4;
/** Whether what a writer writes was kept apart, by its name alone. */
export const isApart = (writer: string): boolean => [...writer].reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0)) % 9973, 7) % APART === 0;

export interface LayoutScore {
  writer: string;
  template: string;
  records: boolean;
  time: boolean;
  level: boolean;
  message: boolean;
  /** Null where it does not stand there. */
  thread: 'right' | 'wrong' | 'none' | null;
  logger: 'right' | 'wrong' | 'none' | null;
}

/** Reads a file of so many lines of each layout. @param apart those that are kept apart, or the others */
export function scoreLayouts(apart: boolean, lines: number): LayoutScore[] {
  return LAYOUTS.filter(([writer]) => isApart(writer) === apart).map(([writer, template], place) => {
    const { lines: written, numbered, exact } = writtenBy(template, 900 + place, lines);
    // clocks alone stand on the day that the file tells
    const firstDay = Math.floor(written[0]!.at / 86_400_000_000);
    const drafts = readWhole(written.map((line) => line.text).join('\n'), 'logs/some.log', { firstDay });
    const records = drafts.length === written.length;
    const every = (right: (i: number) => boolean): boolean => records && written.every((_, i) => right(i));
    const told = (read: (i: number) => string, stands: (i: number) => string | null): LayoutScore['thread'] => {
      if (stands(0) === null) return null;
      if (every((i) => read(i) === stands(i))) return 'right';
      return every((i) => read(i) === '') ? 'none' : 'wrong';
    };
    const { message } = { message: (i: number): boolean => (exact ? drafts[i]!.message === written[i]!.message : drafts[i]!.message.endsWith(written[i]!.message)) }; // prettier-ignore
    return {
      writer,
      template,
      records,
      time: every((i) => drafts[i]!.understood && drafts[i]!.at === written[i]!.at),
      level: every((i) => drafts[i]!.level === written[i]!.level),
      message: every(message),
      thread: told(
        (i) => String(drafts[i]!.fields.thread ?? (numbered ? drafts[i]!.fields.pid : undefined) ?? drafts[i]!.fields['process.thread.name'] ?? drafts[i]!.fields.ctx ?? ''),
        (i) => written[i]!.thread,
      ),
      logger: told(
        (i) => drafts[i]!.logger,
        (i) => written[i]!.logger,
      ),
    };
  }); // prettier-ignore
}
