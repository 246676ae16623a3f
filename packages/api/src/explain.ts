/** A code of a standard, or a partner's own, that stands in a record. */
export interface FoundCode {
  system: 'http' | 'sip' | 'sqlstate' | 'errno' | 'signal' | 'exit' | 'severity' | 'facility' | 'tls' | 'grpc' | 'q850' | 'exception' | 'own';
  code: string;
  /** The field that holds it, '' where it stands in the text. */
  field: string;
  title: string;
  means: string;
  causes: string;
  next: string;
}
/** What a code of one's own means: a partner's. */
export interface OwnCode {
  code: string;
  /** Null for every component. */
  component: string | null;
  title: string;
  means: string;
  causes: string;
  next: string;
}
export interface KeptCode extends OwnCode {
  id: number;
  changedBy: string;
}

/** A package or folder that is declared to be the program's own, with all below it. */
export interface OwnPackage {
  prefix: string;
  changedBy: string;
}
