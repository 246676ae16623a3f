import { KEEP, type IdentifierKind } from './types.ts';

const LOWER = { ...KEEP, case: 'lower' } as const;

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
    fields: ['trace_id', 'traceid', 'trace', 'trace.id', 'traceparent', 'request', 'request_id', 'requestid'],
  },
  {
    name: 'call',
    label: 'call',
    role: 'business',
    scope: 'global',
    leaseMs: null,
    normal: KEEP,
    patterns: [],
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
