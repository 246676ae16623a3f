/** How much a record, a shape, a fault or a strand weighs; ordered. */
export const WEIGHTS = ['slight', 'notable', 'serious', 'grave'] as const;
export type WeightName = (typeof WEIGHTS)[number];
/** Index into WEIGHTS. */
export type Weight = 0 | 1 | 2 | 3;

/** A word that makes a text weigh, by where it stands. */
export interface WeightWord {
  from: number;
  to: number;
  weight: Weight;
}

/**
 * Words of English and German that tell of trouble whatever the program, by weight: what is lost or cannot go on; what did not succeed; what may come to matter. Endings stand as they are
 * inflected; names of what is thrown end in one of three words.
 */
const GRAVE = String.raw`fatal(?:ly|e[rnsm]?)?|panic(?:ked|s)?|corrupt(?:ed|ion|s)?|data loss|lost data|out of memory|no space left|disk (?:is )?full|segmentation fault|segfault|core dumped|unrecoverabl[ey]|irrecoverabl[ey]|crash(?:ed|es|ing)?|catastrophic|datenverlust|abgestürzt|absturz|beschädigt(?:e[rnsm]?)?|unwiderruflich|nicht behebbar|(?:speicher|platte|datenträger) (?:ist )?voll|kein speicher`;
const SERIOUS = String.raw`errors?|fail(?:ed|s|ure|ures|ing)?|exceptions?|refused|denied|rejected|unreachable|unavailable|abort(?:ed|s|ing)?|killed|broken|violat(?:ed|es|ion|ions)|could not|cannot|can't|unable to|timed out|deadlock|fehler(?:haft)?|fehlgeschlagen|fehlschlag|gescheitert|misslungen|ausnahme|verweigert|abgelehnt|abgebrochen|abbruch|unerreichbar|nicht (?:erreichbar|verfügbar)|konnten? nicht|kann nicht|zeitüberschreitung|verletzt`;
const NOTABLE = String.raw`warn(?:ing|ings)?|retr(?:y|ying|ied|ies)|time-?outs?|slow(?:ly)?|delayed|degraded|deprecated|skipped|missing|not found|expired|exceed(?:ed|s|ing)?|overdue|throttled|dropped|duplicate[sd]?|mismatch|unexpected(?:ly)?|unknown|invalid|conflicts?|warnungen|warnung|achtung|wiederhol(?:t|e|en|ung)|langsam|verzögert|veraltet|übersprungen|fehlt|fehlen(?:d|de[rnsm]?)?|nicht gefunden|abgelaufen|überschritten|doppelt|unerwartet|unbekannt|ungültig`;
/** What is thrown: a name in which words are run together. */
const THROWN = String.raw`[\p{L}$]+(?:Exception|Error|Failure)`;
const GRAVE_THROWN = /^(?:OutOfMemory|StackOverflow|NoSpace|Corrupt)/;
/** Parts of paths, of file names and of names are no words. */
const BEFORE = String.raw`(?<![\p{L}\d_/@$\\-]|[\p{L}\d_]\.)`;
const BEHIND = String.raw`(?![\p{L}\d_/@\\]|[.-][\p{L}\d])`;
const WORDS = new RegExp(
  `${BEFORE}(?:(${GRAVE})|(${SERIOUS})|(${NOTABLE}))${BEHIND}|(?<![\\p{L}\\d_/\\\\-])(?:[\\p{L}\\d_$]+\\.)*(${THROWN})${BEHIND}`,
  'giu',
);

/** Negated by what stands before it, at most two words away within the clause; what stands behind it may say that there was none. */
const NEGATED_BEFORE =
  /(?:(?<![\p{L}\d_])(?:no|not|never|without|zero|none of|neither|nor|free of|free from|kein(?:e[rnsm]?)?|nicht|ohne|nie(?:mals)?|weder)|n't|(?<![\p{L}\d.,:_/-])0)(?:\s+(?!(?:but|and|because|until|aber|und|weil|bis)(?![\p{L}\d_]))[\p{L}\d_'-]+){0,2}\s+$/iu;
const NEGATED_BEHIND = /^["']?\s*[:=]?\s*["']?(?:0(?![\p{L}\d.:_])|(?:none|no|false|null|nil|keine?[rnsm]?|nein)(?![\p{L}\d_]))/iu;
const NEAR = 48;
/** Most characters that are looked at: as many as make a shape. */
const LONGEST = 600;

/** The words of a text's first line that make it weigh, in their order; what is negated is none. */
export function weightWords(text: string): WeightWord[] {
  const line = firstLine(text);
  const found: WeightWord[] = [];
  WORDS.lastIndex = 0;
  for (let hit = WORDS.exec(line); hit !== null; hit = WORDS.exec(line)) {
    const [whole, grave, serious, , thrown] = hit;
    const to = hit.index + whole.length;
    if (NEGATED_BEHIND.test(line.slice(to, to + NEAR)) || NEGATED_BEFORE.test(line.slice(Math.max(0, hit.index - NEAR), hit.index))) continue;
    const weight: Weight = grave !== undefined ? 3 : serious !== undefined ? 2 : thrown === undefined ? 1 : GRAVE_THROWN.test(thrown) ? 3 : 2;
    found.push({ from: hit.index, to, weight });
  }
  return found;
}

/** As much of a text as is looked at. */
export const firstLine = (text: string): string => {
  const end = text.indexOf('\n');
  return text.slice(0, Math.min(end < 0 ? text.length : end, LONGEST));
};
