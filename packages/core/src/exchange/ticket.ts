/** A line that tells, word for word. */
export interface TicketLine {
  /** As shown, with its day. */
  time: string;
  component: string;
  level: string;
  text: string;
  /** Path of the source, and the line in it. */
  source: string;
  line: number;
}
export interface Ticket {
  /** What it is about, '' for lines alone. */
  title: string;
  sentence: string;
  /** What it tells as a call or a run, its fault and who has it in hand; '' for none. */
  facts: string;
  lines: readonly TicketLine[];
  /** Lines that were chosen beyond those given. */
  further: number;
  /** IANA name. */
  zone: string;
  link: string;
}

/** Lines of one message that are told; what is cut is said. */
const MOST_LINES = 40;

/** A text for the ticket: the sentence, the telling lines word for word with file and line, the zone once, and the link. Plain text, no markup. */
export function ticketText({ title, sentence, facts, lines, further, zone, link }: Ticket): string {
  const head = [title, sentence].filter((one) => one !== '').join(': ');
  const parts = lines.map(({ time, component, level, text, source, line }) => {
    const all = text.replace(/\s+$/, '').split('\n');
    const told = all.slice(0, MOST_LINES).map((one) => `    ${one}`);
    if (all.length > MOST_LINES) told.push(`    … ${all.length - MOST_LINES} further lines`);
    return [`${time}  ${component}${level === '' || level === 'none' ? '' : `  ${level}`}`, ...told, `    (${source}, line ${line})`].join('\n');
  });
  if (further > 0) parts.push(`… and ${further} further records`);
  return [head, facts, ...parts, `Times of ${zone}.\n${link}`].filter((one) => one !== '').join('\n\n') + '\n';
}
