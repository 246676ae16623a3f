import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { deflateRawSync, gzipSync } from 'node:zlib';
import tar from 'tar-stream';
import { memberProblem, unpack, UNPACK_LIMITS, type UnpackLimits } from './unpack.ts';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'fadenweg-unpack-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

async function contents(path: string, bytes: Uint8Array, limits: UnpackLimits = UNPACK_LIMITS): Promise<[string, string][]> {
  const file = join(folder, 'arrived');
  await writeFile(file, bytes);
  const found: [string, string][] = [];
  for await (const one of unpack({ path, modified: new Date(0), file, size: bytes.length, contentHash: '' }, limits)) {
    if ('problem' in one) found.push([one.path, `refused: ${one.problem}`]);
    else {
      found.push([one.path, await readFile(one.file, 'utf8')]);
      await rm(one.file);
    }
  }
  expect(await readdir(folder)).toEqual([]);
  return found;
}

async function tarOf(members: [string, string | Uint8Array][]): Promise<Buffer> {
  const pack = tar.pack();
  for (const [name, content] of members) pack.entry({ name }, Buffer.from(content));
  pack.finalize();
  const parts: Buffer[] = [];
  for await (const part of pack) parts.push(part as Buffer);
  return Buffer.concat(parts);
}

const crc32 = (bytes: Uint8Array): number => {
  let crc = ~0;
  for (const byte of bytes) {
    crc ^= byte;
    for (let i = 0; i < 8; i++) crc = (crc >>> 1) ^ (crc & 1 ? 0xedb88320 : 0);
  }
  return ~crc >>> 0;
};

/** A zip of deflated members, by the application note of its format. */
function zipOf(members: [string, string][]): Buffer {
  const parts: Buffer[] = [];
  const entries: Buffer[] = [];
  let offset = 0;
  for (const [name, content] of members) {
    const packed = deflateRawSync(content);
    const about = Buffer.alloc(26);
    about.writeUInt16LE(20, 0);
    about.writeUInt16LE(8, 4);
    about.writeUInt32LE(crc32(Buffer.from(content)), 10);
    about.writeUInt32LE(packed.length, 14);
    about.writeUInt32LE(Buffer.byteLength(content), 18);
    about.writeUInt16LE(name.length, 22);
    const local = Buffer.concat([Buffer.from('PK\x03\x04'), about, Buffer.from(name), packed]);
    const tail = Buffer.alloc(14);
    tail.writeUInt32LE(offset, 10);
    entries.push(Buffer.concat([Buffer.from('PK\x01\x02'), Buffer.from([20, 0]), about, tail, Buffer.from(name)]));
    parts.push(local);
    offset += local.length;
  }
  const directory = Buffer.concat(entries);
  const end = Buffer.alloc(18);
  end.writeUInt16LE(members.length, 4);
  end.writeUInt16LE(members.length, 6);
  end.writeUInt32LE(directory.length, 8);
  end.writeUInt32LE(offset, 12);
  return Buffer.concat([...parts, directory, Buffer.from('PK\x05\x06'), end]);
}

describe('archives', () => {
  test('what is not packed comes as it is', async () => {
    expect(await contents('a/b.log', Buffer.from('one\n'))).toEqual([['a/b.log', 'one\n']]);
  });

  test('gzip loses its ending', async () => {
    expect(await contents('a/b.log.1.gz', gzipSync('one\n'))).toEqual([['a/b.log.1', 'one\n']]);
  });

  test('tar in gzip, zip in tar, gzip in zip', async () => {
    const inner = zipOf([['x/app.log', 'one\n'], ['y.log', 'two\n']]); // prettier-ignore
    const whole = gzipSync(await tarOf([['logs/inner.zip', inner], ['logs/packed.log.gz', gzipSync('three\n')], ['empty.log', '']])); // prettier-ignore
    expect(await contents('all.tgz', whole)).toEqual([
      ['all.tar/logs/inner.zip/x/app.log', 'one\n'],
      ['all.tar/logs/inner.zip/y.log', 'two\n'],
      ['all.tar/logs/packed.log', 'three\n'],
      ['all.tar/empty.log', ''],
    ]);
  });

  test('members with absolute paths or paths upwards are refused, the others come', async () => {
    const found = await contents('a.tar', await tarOf([['../../etc/app.log', 'x'], ['/etc/app.log', 'y'], ['ok.log', 'z']])); // prettier-ignore
    expect(found.map(([path, text]) => [path, text.startsWith('refused')])).toEqual([
      ['a.tar/../../etc/app.log', true],
      ['a.tar//etc/app.log', true],
      ['a.tar/ok.log', false],
    ]);
    expect((await contents('a.zip', zipOf([['../x.log', 'x'], ['ok.log', 'z']]))).map(([, text]) => text)).toEqual([expect.stringMatching(/out of the archive/), 'z']); // prettier-ignore
    expect(memberProblem('C:\\logs\\x.log')).toMatch(/absolute/);
    expect(memberProblem('a/..b/x.log')).toBeNull();
  });

  test('an enormous ratio, too many members and too many layers are refused with the reason', async () => {
    const limits = { ...UNPACK_LIMITS, freeBytes: 1000, members: 2, depth: 2 };
    expect(await contents('a.gz', gzipSync(Buffer.alloc(5_000_000)), limits)).toEqual([['a.gz', expect.stringMatching(/300 times its size/)]]);
    const many = await contents('a.tar', await tarOf([['1', 'x'], ['2', 'x'], ['3', 'x']]), limits); // prettier-ignore
    expect(many).toEqual([['a.tar/1', 'x'], ['a.tar/2', 'x'], ['a.tar', expect.stringMatching(/more than 2 files/)]]); // prettier-ignore
    expect(await contents('a.gz', gzipSync(gzipSync(gzipSync('x'))), limits)).toEqual([
      [expect.any(String), expect.stringMatching(/2 archives deep/)],
    ]);
  });

  test('a packed file that breaks off gives what came before', async () => {
    const text = Array.from({ length: 20_000 }, (_, i) => `line ${i * 7919}`).join('\n');
    const whole = gzipSync(text);
    const found = await contents('a.log.gz', whole.subarray(0, whole.length - 2000));
    expect(found[0]![0]).toBe('a.log');
    expect(text.startsWith(found[0]![1])).toBe(true);
    expect(found[0]![1].length).toBeGreaterThan(1000);
    expect(found[1]).toEqual(['a.log.gz', expect.stringMatching(/breaks off/)]);
  });

  test('broken archives are told', async () => {
    const broken = await contents('a.zip', Buffer.from('PK\x03\x04 and then nothing of the kind'));
    expect(broken).toEqual([['a.zip', expect.stringMatching(/could not be unpacked/)]]);
  });
});
