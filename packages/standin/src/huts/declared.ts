/** What is declared of the second world: bookings and feed runs alone. Request numbers, payment references, queue names and session numbers tie the rest, and nobody says so. */
export const HUT_KINDS = [
  {
    name: 'booking',
    label: 'booking',
    role: 'business',
    patterns: ['\\b[Hh][Bb]-?\\d{6}\\b'],
    fields: [],
    normal: { case: 'upper', separators: 'drop', leadingZeros: 'keep', phone: false },
    scope: 'global',
    leaseMs: null,
  },
  {
    name: 'feed-run',
    label: 'feed run',
    role: 'business',
    patterns: ['\\bWF-\\d{1,6}\\b'],
    fields: [],
    normal: { case: 'keep', separators: 'keep', leadingZeros: 'keep', phone: false },
    scope: 'global',
    leaseMs: null,
  },
];
export const HUT_FLOWS = [
  { name: 'booking', label: 'booking', kind: 'booking', prefix: '', patienceMs: null, expects: [] },
  { name: 'weather-feed', label: 'weather feed', kind: 'feed-run', prefix: '', patienceMs: null, expects: [] },
];
export const HUT_MEANINGS = [
  { component: 'reserve', contains: 'is confirmed', means: 'done' },
  { component: 'reserve', contains: 'declined by the bank', means: 'refused' },
  { component: 'weather', contains: 'feed ended', means: 'done' },
];
