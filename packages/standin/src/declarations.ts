/**
 * What an administrator of the lens works declares: identifier kinds, flows and what some messages mean.
 * Plain data in the shape of the API; nothing in the product knows it.
 */
const KEEP = { case: 'keep', separators: 'keep', leadingZeros: 'keep', phone: false };
const kind = (name: string, label: string, role: string, patterns: string[], fields: string[]) => ({
  name,
  label,
  role,
  patterns,
  fields,
  normal: KEEP,
  scope: 'global',
  leaseMs: null,
});

export const KINDS = [
  kind('order', 'order', 'business', ['LX-\\d{6}'], []),
  kind('run', 'job run', 'business', ['PL-\\d{4}', 'SS-\\d{4}', 'IE-\\d{4}', 'FC-\\d{4}'], []),
  kind('claim', 'claim', 'business', ['RC-\\d{5}'], []),
  { ...kind('reference', 'shop’s own number', 'shared', ['S\\d{4}-\\d{5}'], []), once: true },
  kind('message', 'message', 'link', ['m-[0-9a-f]{8}'], []),
  kind('shop', 'shop', 'shared', [], ['shop']),
];
export const FLOWS = [
  { name: 'lens-order', label: 'lens order', kind: 'order', prefix: '', patienceMs: null, expects: [] },
  { name: 'status-call', label: 'status call', kind: 'call', prefix: '', patienceMs: null, expects: [] },
  {
    name: 'price-list-job',
    label: 'price-list job',
    kind: 'run',
    prefix: 'PL-',
    patienceMs: null,
    expects: [{ field: 'rows read', words: 'read', min: 1000, max: null }],
  },
  { name: 'stock-sync-job', label: 'stock-sync job', kind: 'run', prefix: 'SS-', patienceMs: null, expects: [] },
  { name: 'invoice-export-job', label: 'invoice-export job', kind: 'run', prefix: 'IE-', patienceMs: null, expects: [] },
  { name: 'frame-catalogue-job', label: 'frame-catalogue job', kind: 'run', prefix: 'FC-', patienceMs: null, expects: [] },
  { name: 'remake-claim', label: 'remake claim', kind: 'claim', prefix: '', patienceMs: null, expects: [] },
];
export const MEANINGS = [
  { component: 'order-desk', contains: 'finished, parcel', means: 'done' },
  { component: 'order-desk', contains: 'decided: remake', means: 'done' },
  { component: 'order-desk', contains: 'refused', means: 'refused' },
  { component: 'order-desk', contains: 'on hold, reason', means: 'ends' },
  { component: 'batch', contains: 'finished in', means: 'done' },
];
export const DEMO_ZONE = 'Europe/Berlin';
