import { KEEP, type IdentifierKind } from './types.ts';

const LOWER = { ...KEEP, case: 'lower' } as const;

/** A Call-ID as other programs write it behind that word (RFC 3261, section 25.1): with a digit before the @, since an address of mail seldom has one. */
const CALL_ID = `([^\\s"'<>()\\[\\],;@]{0,80}[0-9][^\\s"'<>()\\[\\],;@]{0,80}@[0-9A-Za-z.:-]{1,80})`;

/** Kinds that open standards define; they work in any world without set-up. */
export const STANDARD_KINDS: readonly IdentifierKind[] = [
  {
    name: 'trace',
    label: 'trace',
    role: 'link',
    scope: 'global',
    leaseMs: null,
    normal: LOWER,
    patterns: ['00-([0-9a-f]{32})-[0-9a-f]{16}-[0-9a-f]{2}', '[0-9a-f]{32}'],
    fields: [
      'trace_id',
      'traceid',
      'trace',
      'trace.id',
      'traceparent',
      'request',
      'request_id',
      'requestid',
      'correlation_id',
      'correlationid',
      'x-request-id',
      'x-correlation-id',
    ],
  },
  {
    name: 'uuid',
    label: 'UUID',
    role: 'link',
    scope: 'global',
    leaseMs: null,
    normal: LOWER,
    patterns: ['[0-9a-fA-F]{8}-[0-9a-fA-F]{4}-[0-9a-fA-F]{4}-[0-9a-fA-F]{4}-[0-9a-fA-F]{12}'],
    fields: [],
  },
  {
    name: 'call',
    label: 'call',
    role: 'business',
    scope: 'global',
    leaseMs: null,
    normal: KEEP,
    patterns: [],
    // a header “Call-ID:” is read where it belongs to a call
    inText: [`call(?:[-_ ]?id)?[ :=#]{1,3}["'<(\\[]?${CALL_ID}`, `Call(?:[_ ]?[Ii][Dd]|-I[Dd])?[ =#]{1,2}["'<(\\[]?${CALL_ID}`],
    fields: ['call-id', 'call_id', 'callid', 'sip.call_id'],
  },
  {
    name: 'db-session',
    label: 'database session',
    role: 'link',
    scope: 'global',
    leaseMs: 900_000,
    normal: LOWER,
    patterns: ['[0-9a-f]{8}\\.[0-9a-f]{1,8}'],
    fields: ['session', 'session_id', 'dbsession', 'db_session'],
  },
  {
    name: 'phone',
    label: 'phone',
    role: 'shared',
    scope: 'global',
    leaseMs: null,
    normal: { ...KEEP, phone: true },
    patterns: ['sips?:\\+?([0-9+]{6,20})@', 'tel:(\\+?[0-9.-]{6,24})'],
    fields: ['caller', 'called', 'phone', 'caller_number', 'called_number', 'msisdn', 'from_number', 'to_number'],
  },
];
