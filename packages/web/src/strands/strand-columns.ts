import type { StrandColumnsBody, StrandSummary } from '@fadenweg/api';
import { columnsText, type Column } from '../find/columns.ts';

/** What a list of strands may show of each. */
export const STRAND_FIELDS = [
  { field: 'outcome', title: 'Outcome', width: 98 },
  { field: 'identifier', title: 'Identifier', width: 150 },
  { field: 'flow', title: 'Flow', width: 104 },
  { field: 'parties', title: 'Whom it concerns', width: 180 },
  { field: 'begin', title: 'Begin', width: 150 },
  { field: 'end', title: 'End', width: 150 },
  { field: 'duration', title: 'Duration', width: 84 },
  { field: 'usual', title: 'Usual', width: 60 },
  { field: 'records', title: 'Records', width: 58 },
  { field: 'gave-up', title: 'Gave up in', width: 120 },
  { field: 'weight', title: 'Weight', width: 70 },
  { field: 'environment', title: 'Environment', width: 100 },
  { field: 'happened', title: 'What happened', width: 0 },
] as const;
export type StrandField = (typeof STRAND_FIELDS)[number]['field'];
export interface StrandColumn extends Column {
  field: StrandField;
  title: string;
}
/** Those that hold numbers, which stand at the right. */
export const NUMBERS: ReadonlySet<StrandField> = new Set(['duration', 'records']);
export const USUAL_STRAND_COLUMNS: StrandColumnsBody = {
  columns: (['outcome', 'identifier', 'flow', 'begin', 'duration', 'usual', 'records', 'happened'] as const).map((field) => ({
    field,
    width: STRAND_FIELDS.find((one) => one.field === field)!.width,
  })),
};

/** Columns as an address or a set holds them, those of them that strands have; the usual ones where none is left. */
export function strandColumnsOf(columns: readonly Column[]): StrandColumn[] {
  const known = columns.flatMap(({ field, width }) => {
    const one = STRAND_FIELDS.find((other) => other.field === field);
    return one ? [{ field: one.field, title: one.title, width }] : [];
  });
  return known.length > 0 ? known : strandColumnsOf(USUAL_STRAND_COLUMNS.columns);
}
/** What gives way first where there is no room: how long it takes usually, then what happened, which the sheet beside the list tells too. */
const GIVES_WAY: readonly StrandField[] = ['usual', 'happened'];
/** Between two columns, and at both sides with the bar by which it is scrolled, in pixels. */
const [GAP, SIDES] = [12, 43];
/** So narrow, words tell nothing any more. */
const NARROWEST = 140;
/** How wide a list with these columns is at least, in pixels. */
export const widthOf = (columns: readonly Column[]): number =>
  columns.reduce((sum, { width }) => sum + (width || NARROWEST), 0) + GAP * (columns.length - 1) + SIDES;
/** Those of the columns for which there is room. @param room in pixels; 0 where it is not known yet */
export function fitting(columns: readonly StrandColumn[], room: number): StrandColumn[] {
  let fit = [...columns];
  for (const field of GIVES_WAY) if (room > 0 && widthOf(fit) > room && fit.length > 1) fit = fit.filter((one) => one.field !== field);
  return fit;
}

export const strandColumnWords = ({ columns }: StrandColumnsBody): string => columnsText(columns);

/** Whom a strand concerns, as one text. */
export const partiesText = ({ parties }: Pick<StrandSummary, 'parties'>): string => parties.map((one) => `${one.kind} ${one.value}`).join(' · ');
