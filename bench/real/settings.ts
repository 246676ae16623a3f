import type { Layout } from './log-writer.ts';

/** What a service of the lending office is told when it is started. */
export interface Settings {
  role: Role;
  layout: Layout;
  /** How the number of a loan is spelled, `#` for its digits. */
  spelling: string;
  /** How the door's number is called in what a service writes. */
  requestName: string;
  database: string;
  ports: { door: number; desk: number; shelf: number; broker: number; syslog: number };
  /** Folder of the logs, and of what tells the truth of them. */
  logs: string;
  truth: string;
  /** Folder in which labels are written. */
  labels: string;
  version: string;
  /** Lines of its log that stand there already. */
  lines: number;
}
export type Role = 'desk' | 'shelf' | 'post';

/** The number of a loan as it is written. */
export const spelled = (spelling: string, id: number): string => spelling.replace(/#+/, (digits) => String(id).padStart(digits.length, '0'));
