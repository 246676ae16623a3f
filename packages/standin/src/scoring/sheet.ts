/** Right ones of all. */
export interface Share {
  right: number;
  all: number;
}
const none = (): Share => ({ right: 0, all: 0 });
/** The share of right ones, NaN where there were none. */
export const shareOf = ({ right, all }: Share): number => (all === 0 ? NaN : right / all);

/** Figures of a world; each transaction counts alike. */
export class Sheet {
  /** Sum of the F1 of each transaction's records. */
  readonly records = none();
  /** Sum of the F1 of each leg. */
  readonly legs = none();
  /** Values of its own that are told of its strand. */
  readonly identifiers = none();
  readonly outcomes = none();
  /** Of those that departed: the outcome is right; the first finding names a right component, a right record. */
  readonly faulty = none();
  readonly component = none();
  readonly record = none();
  readonly amongThree = none();
  readonly next = none();
  readonly slowIn = none();
  /** Good ones that are told to have departed. */
  readonly blamed = none();
  /** First findings by how sure they are said to be, in fifths: sum of what is said, how many name a right component. */
  readonly sure = new Map<number, { said: number; right: number; all: number }>();

  count(
    what: 'records' | 'legs' | 'identifiers' | 'outcomes' | 'faulty' | 'component' | 'record' | 'amongThree' | 'next' | 'slowIn' | 'blamed',
    right: number,
    all = 1,
  ): void {
    this[what].right += right;
    this[what].all += all;
  }
  said(confidence: number, right: boolean): void {
    const fifth = Math.min(4, Math.floor(confidence * 5));
    const bin = this.sure.get(fifth) ?? { said: 0, right: 0, all: 0 };
    this.sure.set(fifth, { said: bin.said + confidence, right: bin.right + (right ? 1 : 0), all: bin.all + 1 });
  }
}
