import type { Access } from '../platform/access.ts';
import { createHash } from 'node:crypto';
import type { SourceText } from '@fadenweg/api';
import type { Database } from '../database/connect.ts';

interface Row {
  id: number;
  component: string;
  version: string;
  files: number;
  bytes: string;
  left_out: number;
  who: string;
  registered_at: Date;
}
export interface TextToKeep {
  path: string;
  body: string;
}
const infoOf = ({ id, component, version, files, bytes, left_out, who, registered_at }: Row): SourceText => ({
  id,
  component,
  version,
  files,
  bytes: Number(bytes),
  leftOut: left_out,
  registeredAt: registered_at.toISOString(),
  who,
});
/** Rows of one statement. */
const AT_ONCE = 500;

/** Source texts of programs, by component and version; a text that several versions share is kept once. */
export class SourceTextRepository {
  constructor(private readonly db: Database) {}

  async all(): Promise<SourceText[]> {
    return (await this.db<Row>('source_text').orderBy('component').orderBy('registered_at', 'desc').limit(2000)).map(infoOf);
  }
  async of(component: string): Promise<SourceText[]> {
    return (await this.db<Row>('source_text').where({ component }).orderBy('registered_at', 'desc').limit(500)).map(infoOf);
  }

  /** Keeps the texts of a version; what was registered for it before is replaced. */
  async keep(about: { component: string; version: string; leftOut: number }, access: Access, files: readonly TextToKeep[]): Promise<SourceText> {
    const { component, version, leftOut } = about;
    return this.db.transaction(async (trx) => {
      await trx('source_text').where({ component, version }).delete();
      const bytes = files.reduce((sum, { body }) => sum + Buffer.byteLength(body), 0);
      const [row] = await trx<Row>('source_text')
        .insert({ component, version, files: files.length, bytes: bytes as never, left_out: leftOut, who: access.who })
        .returning('*');
      for (let i = 0; i < files.length; i += AT_ONCE) {
        const some = files.slice(i, i + AT_ONCE).map(({ path, body }) => ({ path, body, hash: createHash('sha256').update(body).digest() }));
        const bodies = new Map(some.map(({ hash, body }) => [hash.toString('hex'), { hash, body }]));
        await trx('text_body').insert([...bodies.values()]).onConflict('hash').ignore(); // prettier-ignore
        await trx('text_file').insert(some.map(({ path, hash }) => ({ source_text_id: row!.id, path, hash })));
      }
      await dropUnused(trx);
      return infoOf(row!);
    });
  }
  async remove(id: number): Promise<boolean> {
    return this.db.transaction(async (trx) => {
      const gone = (await trx('source_text').where({ id }).delete()) > 0;
      if (gone) await dropUnused(trx);
      return gone;
    });
  }
  async paths(id: number): Promise<string[]> {
    const rows: { path: string }[] = await this.db('text_file').where({ source_text_id: id }).orderBy('path').select('path');
    return rows.map((row) => row.path);
  }
  async body(id: number, path: string): Promise<string | null> {
    const row: { body: string } | undefined = await this.db('text_file').join('text_body', 'text_body.hash', 'text_file.hash').where({ source_text_id: id, path }).first('body'); // prettier-ignore
    return row?.body ?? null;
  }
}

const dropUnused = (db: Database): Promise<unknown> =>
  db.raw('delete from text_body b where not exists (select from text_file f where f.hash = b.hash)') as unknown as Promise<unknown>;
