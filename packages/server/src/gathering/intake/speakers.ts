/** Most that one source tells of; what comes on top counts as the source's own, as its names do. */
const MOST = 500;

/** Which components and hosts speak in a source, told once each. */
export class Speakers {
  private readonly known = new Map<string, Set<string>>();
  private count = 0;
  private component: string | null = null;
  private host = '';
  private fresh: { component: string; host: string }[] = [];

  /** A record is of these; '' for the source's own. Most are of the same as the one before. */
  note(component: string, host: string): void {
    if (component === this.component && host === this.host) return;
    this.component = component;
    this.host = host;
    let hosts = this.known.get(component);
    if (!hosts) this.known.set(component, (hosts = new Set()));
    if (hosts.has(host) || this.count >= MOST) return;
    hosts.add(host);
    this.count++;
    this.fresh.push({ component, host });
  }

  /** Those that are new since the last call. */
  take(): { component: string; host: string }[] {
    const { fresh } = this;
    this.fresh = [];
    return fresh;
  }
}
