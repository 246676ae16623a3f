/** Times and durations as shown: in the person's zone, which is named once in the top band. */
export const ZONE = Intl.DateTimeFormat().resolvedOptions().timeZone;
const two = (n: number): string => String(n).padStart(2, '0');

export const clock = (iso: string, digits: 0 | 3 | 6 = 3): string => {
  const date = new Date(iso);
  const base = `${two(date.getHours())}:${two(date.getMinutes())}:${two(date.getSeconds())}`;
  if (digits === 0) return base;
  const fraction = (/\.(\d+)/.exec(iso)?.[1] ?? '').padEnd(6, '0');
  return `${base}.${fraction.slice(0, digits)}`;
};
export const day = (iso: string): string => {
  const date = new Date(iso);
  return `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`;
};
export const dayAndClock = (iso: string, digits: 0 | 3 | 6 = 0): string => `${day(iso)} ${clock(iso, digits)}`;
/** Whether two instants are on one day of the person's zone. */
export const sameDay = (a: string, b: string): boolean => day(a) === day(b);
/** Microseconds since 1970 of an ISO text with microseconds. */
export function micros(iso: string): number {
  const fraction = (/\.(\d+)/.exec(iso)?.[1] ?? '').padEnd(6, '0').slice(0, 6);
  return Math.floor(Date.parse(iso) / 1000) * 1_000_000 + Number(fraction);
}
export const count = (n: number): string => n.toLocaleString('en');
export function bytes(n: number): string {
  if (n < 1000) return `${n} B`;
  if (n < 1e6) return `${(n / 1000).toFixed(0)} kB`;
  return n < 1e9 ? `${(n / 1e6).toFixed(1)} MB` : `${(n / 1e9).toFixed(2)} GB`;
}
