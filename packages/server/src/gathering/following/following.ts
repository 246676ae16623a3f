import { isAbsolute, normalize } from 'node:path';
import { Refusal } from '../../platform/http/problems.ts';
import type { FollowRepository, FollowRow } from './follows.ts';
import type { SourceRepository } from '../../evidence/sources.ts';
import type { Arriving, ImportService } from '../import-service.ts';
import { Follower, type FollowState } from './follower.ts';

const MOST = 200;

/** All that is followed. */
export class Following {
  private readonly followers = new Map<number, Follower>();

  constructor(
    private readonly follows: FollowRepository,
    private readonly sources: SourceRepository,
    private readonly imports: ImportService,
    private readonly spool: string,
  ) {}

  /** Goes on with what was followed before the server was stopped. */
  async start(): Promise<void> {
    for (const row of await this.follows.all()) this.begin(row);
  }
  async stop(): Promise<void> {
    await Promise.all([...this.followers.values()].map((one) => one.stop()));
  }

  async all(): Promise<(FollowRow & FollowState)[]> {
    const rows = await this.follows.all();
    return rows.map((row) => ({ ...row, ...(this.followers.get(row.id)?.told() ?? { files: 0, grewAt: null, problem: null }) }));
  }

  /** @throws a refusal where the path is none, or followed already */
  async add(path: string, arriving: Arriving): Promise<FollowRow & FollowState> {
    if (!isAbsolute(path)) throw new Refusal(400, 'Not a whole path', `“${path}” does not begin at the root of this machine.`, 'Give it from / on.');
    const whole = normalize(path).replace(/(?<=.)\/$/, '');
    const rows = await this.follows.all();
    if (rows.length >= MOST) throw new Refusal(409, 'Too much is followed', `${MOST} paths are followed already.`, 'Follow a folder above them.');
    const inside = rows.find((row) => row.environment === arriving.environment && (row.path === whole || whole.startsWith(`${row.path}/`)));
    if (inside) throw new Refusal(409, 'Followed already', `${whole} is followed with ${inside.path}.`);
    const { environment, zone, demo, access } = arriving;
    const importId = await this.imports.beginFollowing(arriving);
    const row = await this.follows.add({ path: whole, environment, zone, demo, import_id: importId, who: access.who });
    return { ...row, ...this.begin(row).told() };
  }

  /** Stops following; what was read stays. */
  async remove(id: number): Promise<boolean> {
    const row = await this.end(id);
    if (row) await this.imports.endFollowing(row.import_id);
    return row !== null;
  }
  private async end(id: number): Promise<FollowRow | null> {
    const follower = this.followers.get(id);
    this.followers.delete(id);
    await follower?.stop();
    await this.follows.remove(id);
    return follower?.row ?? null;
  }
  /** Before an import is taken out: what brings more into it stops. */
  stopFor = async (importId: number): Promise<void> => {
    for (const [id, { row }] of this.followers) if (row.import_id === importId) await this.end(id);
  };

  private begin(row: FollowRow): Follower {
    const follower = new Follower(row, this.follows, this.sources, this.imports, this.spool);
    this.followers.set(row.id, follower);
    follower.start();
    return follower;
  }
}
