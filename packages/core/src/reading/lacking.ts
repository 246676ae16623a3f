import { openReader } from './registry.ts';
import { emptyDraft, type ReadingContext, type ReadingHints, type Sample } from './types.ts';

/** What a record's time does not say (its zone, its year): it is another moment when what is missing is thought to be another. */
export function lacksOf(format: string, sample: Sample, record: string, hints: ReadingHints): Pick<ReadingHints, 'lacksZone' | 'lacksYear'> {
  const at = (context: ReadingContext): number => {
    const draft = emptyDraft();
    openReader(format, sample, context).read(record, draft);
    return draft.at;
  };
  const plain = at({ ...hints, zone: 'UTC' });
  const years = 3 * 366 * 86_400_000_000;
  const lacksYear = at({ ...hints, zone: 'UTC', modified: hints.modified - years }) !== plain;
  return { ...(at({ ...hints, zone: 'Asia/Kolkata' }) !== plain ? { lacksZone: true } : {}), ...(lacksYear ? { lacksYear } : {}) };
}
