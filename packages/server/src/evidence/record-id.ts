/** A record's id: its source and the position of its first byte there. Sources up to 2^17, positions up to 2^36. */
export const recordId = (sourceId: number, byte: number): number => sourceId * 2 ** 36 + byte;
export const sourceOfId = (id: number): number => Math.floor(id / 2 ** 36);
export const byteOfId = (id: number): number => id % 2 ** 36;
export const FLAG = { understood: 1, cut: 2, shortened: 4 } as const;

/** Who tells a record's time: itself, those beside it, or, where no line of its source tells one, the date of its file. */
export const timeFrom = (flags: number, source: { understood: number } | undefined): 'told' | 'neighbour' | 'file' =>
  flags & FLAG.understood ? 'told' : source && source.understood > 0 ? 'neighbour' : 'file';
