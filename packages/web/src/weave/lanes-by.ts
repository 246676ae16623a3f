import type { Finding, Strand, StrandLine } from '@fadenweg/api';

/** What a lane stands for. */
export const LANES_BY = ['component', 'host', 'system'] as const;
export type LanesBy = (typeof LANES_BY)[number];
/** Parts of a name, as `stock` and `sync` of `stock-sync`. */
const PARTS = /[-_.\s]+/;

/**
 * The strand with its components put together, for a picture with fewer lanes: those of one host, or those whose names begin alike. What has no host stands for itself.
 */
export function lanesBy(strand: Strand, lines: StrandLine[], by: LanesBy): { strand: Strand; lines: StrandLine[] } {
  if (by === 'component') return { strand, lines };
  const components = [...new Set([...strand.steps, ...lines].map((one) => one.component))];
  const systems = systemsOf(components);
  const hosts = new Map([...strand.steps, ...lines].map((one) => [one.component, one.host]));
  const laneOf = (component: string, host: string): string => (by === 'system' ? systems.get(component)! : host === '' ? component : host);
  const lane = (component: string): string => laneOf(component, hosts.get(component) ?? '');
  const put = <T extends { component: string; host: string }>(one: T): T => ({ ...one, component: laneOf(one.component, one.host) });
  const finding = (one: Finding): Finding => ({ ...one, component: systems.has(one.component) ? lane(one.component) : one.component });
  return {
    strand: { ...strand, steps: strand.steps.map(put), findings: strand.findings.map(finding) },
    lines: lines.map(put),
  };
}

/** By component, the first part of its name where another begins alike, else the name. */
function systemsOf(components: readonly string[]): Map<string, string> {
  const heads = components.map((name) => name.split(PARTS)[0]!);
  return new Map(components.map((name, i) => [name, heads.filter((head) => head === heads[i]).length > 1 ? heads[i]! : name]));
}
