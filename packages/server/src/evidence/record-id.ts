/** A record's id: its source and the position of its first byte there. Sources up to 2^17, positions up to 2^36. */
export const recordId = (sourceId: number, byte: number): number => sourceId * 2 ** 36 + byte;
export const sourceOfId = (id: number): number => Math.floor(id / 2 ** 36);
export const byteOfId = (id: number): number => id % 2 ** 36;
export const FLAG = { understood: 1, cut: 2, shortened: 4 } as const;
