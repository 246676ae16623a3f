/** Reads sources again from their kept bytes: whoever finds or declares something about them asks for it here. */
export interface Reread {
  /** Keeps in mind that sources have to be read again, until they are told to be: a process that is killed in between does it at its next start. */
  due(ids: readonly number[]): Promise<void>;
  /** @param sameNames they name the same as before, at other times only */
  readAgain(ids: readonly number[], sameNames?: boolean): Promise<void>;
  /** Identifiers are declared that were none before; what names them is about to be read again. */
  declared(): Promise<void>;
}
