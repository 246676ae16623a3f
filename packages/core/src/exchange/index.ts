export { ticketText, type Ticket, type TicketLine } from './ticket.ts';
export { csvLine } from './csv.ts';
export { otlpTrace } from './otlp.ts';
export { otlpAttribute, otlpAttributes, otlpResource, otlpSeverity, otlpTraceMember } from './otlp-logs.ts';
export type { ExchangedStep, ExchangedStrand } from './strand.ts';
export { XES_HEAD, XES_TAIL, xesTrace } from './xes.ts';
