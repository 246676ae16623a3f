export const CODE_SYSTEMS = [
  'http',
  'sip',
  'sqlstate',
  'errno',
  'signal',
  'exit',
  'severity',
  'facility',
  'tls',
  'grpc',
  'q850',
  'exception',
  'own',
] as const;
export type CodeSystem = (typeof CODE_SYSTEMS)[number];

/** What a code means, what usually brings it about, where to look next. */
export interface Explanation {
  title: string;
  means: string;
  /** '' where nothing in general can be said. */
  causes: string;
  next: string;
}
/** A code that stands in a record. */
export interface FoundCode extends Explanation {
  system: CodeSystem;
  code: string;
  /** The field that holds it, '' where it stands in the text. */
  field: string;
}
/** An entry of one's own: a partner's code. */
export interface OwnCode extends Explanation {
  code: string;
  /** Null for every component. */
  component: string | null;
}
/** `title | what it means | usual causes | where to look next`. */
export const entry = (text: string): Explanation => {
  const [title = '', means = '', causes = '', next = ''] = text.split('|').map((part) => part.trim());
  return { title, means, causes, next };
};
export const table = (rows: Record<string, string>): ReadonlyMap<string, Explanation> =>
  new Map(Object.entries(rows).map(([code, text]) => [code, entry(text)]));
