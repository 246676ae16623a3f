import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { call, filesBelow, sendFiles, sendSourceText, waitForImport } from './client.ts';
import { run, Stop } from './commands.ts';

setFlagsFromString('--expose-gc');
const collect = runInNewContext('gc') as () => void;

let folder: string;
let server: Server;
let url: string;
const received: { method: string; path: string; body: Buffer }[] = [];
let answers: { status: number; body: string }[] = [];
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'fadenweg-client-'));
  await mkdir(join(folder, 'b', 'deep'), { recursive: true });
  await writeFile(join(folder, 'b', 'deep', 'two.log'), 'two\n');
  await writeFile(join(folder, 'a.log'), 'one "quoted"\r\n');
  server = createServer((request, response) => {
    const parts: Buffer[] = [];
    request.on('data', (part: Buffer) => parts.push(part));
    request.on('end', () => {
      received.push({ method: request.method ?? '', path: request.url ?? '', body: Buffer.concat(parts) });
      const answer = answers.shift() ?? { status: 200, body: '{}' };
      response.writeHead(answer.status, { 'content-type': 'application/json' }).end(answer.body);
    });
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(async () => {
  server.closeAllConnections();
  await new Promise((resolve) => server.close(resolve));
  await rm(folder, { recursive: true, force: true });
});

describe('what the commands send', () => {
  test('folders are walked through, paths are below the folder, in order', async () => {
    expect((await filesBelow([folder])).map(({ path, size }) => [path, size])).toEqual([
      ['a.log', 14],
      ['b/deep/two.log', 4],
    ]);
    expect((await filesBelow([join(folder, 'a.log')])).map((file) => file.path)).toEqual(['a.log']);
    await expect(filesBelow([join(folder, 'none')])).rejects.toThrow(Stop);
  });

  test('files go out as multipart with their paths and times, just as long as they were when listed', async () => {
    answers = [{ status: 202, body: '{"id":7}' }];
    const files = (await filesBelow([folder])).map((file) => (file.path === 'a.log' ? { ...file, size: 3 } : file));
    expect(await sendFiles(url, files, { zone: 'UTC' })).toEqual({ id: 7 });
    const sent = received.at(-1)!;
    expect([sent.method, sent.path]).toEqual(['POST', '/api/imports?zone=UTC']);
    const text = sent.body.toString();
    expect(text).toContain('filename="b/deep/two.log"');
    expect(text).toMatch(/name="modified:a\.log"\r\n\r\n\d{13}\r\n/);
    expect(text).toMatch(/filename="a\.log"\r\ncontent-type: application\/octet-stream\r\n\r\none\r\n--/);
  });

  test('a file that is removed meanwhile is told of, and the others go on', async () => {
    answers = [{ status: 202, body: '{"id":8}' }];
    const files = await filesBelow([folder]);
    const missed: string[] = [];
    const gone = { ...files[0]!, file: join(folder, 'gone.log'), path: 'gone.log' };
    await sendFiles(url, [gone, ...files], {}, (path, reason) => missed.push(`${path}: ${reason}`));
    expect(missed).toEqual(['gone.log: it is gone']);
    const text = received.at(-1)!.body.toString();
    expect(text).not.toContain('gone.log');
    expect(text).toContain('two\n');
  });

  test('what is sent is not kept: memory stays flat, however large the files are', async () => {
    const size = 96 << 20;
    const file = join(folder, 'large.log');
    await writeFile(file, Buffer.alloc(size, 'x'));
    // what is not yet collected is no leak: memory is measured behind a collection, at each 16 MB that have arrived
    const before = process.memoryUsage().arrayBuffers;
    const held: number[] = [];
    let arrived = 0;
    const takes = createServer((request, response) => {
      request.on('data', (part: Buffer) => {
        arrived += part.length;
        if (arrived < (held.length + 1) * (16 << 20)) return;
        collect();
        held.push(process.memoryUsage().arrayBuffers - before);
      });
      request.on('end', () => response.end('{"id":9}'));
    });
    await new Promise<void>((resolve) => takes.listen(0, '127.0.0.1', resolve));
    try {
      const address = `http://127.0.0.1:${(takes.address() as AddressInfo).port}`;
      expect(await sendFiles(address, [{ file, path: 'large.log', size, modified: 0 }], {})).toEqual({ id: 9 });
    } finally {
      takes.closeAllConnections();
      takes.close();
      await rm(file);
    }
    expect(held).toHaveLength(6);
    expect(Math.max(...held)).toBeLessThan(size / 4);
  });

  test('a refusal that comes before all is sent is told, and so is a server that is not there', async () => {
    const file = join(folder, 'large.log');
    await writeFile(file, Buffer.alloc(8 << 20, 'x'));
    const refuses = createServer((_request, response) => {
      response.writeHead(413, { 'content-type': 'application/json', connection: 'close' }).end('{"title":"Too large","detail":"It is."}');
    });
    await new Promise<void>((resolve) => refuses.listen(0, '127.0.0.1', resolve));
    const files = [{ file, path: 'large.log', size: 8 << 20, modified: 0 }];
    await expect(sendFiles(`http://127.0.0.1:${(refuses.address() as AddressInfo).port}`, files, {})).rejects.toThrow('Too large: It is.');
    refuses.closeAllConnections();
    refuses.close();
    await expect(sendFiles('http://127.0.0.1:9', files, {})).rejects.toThrow(/does not answer.*bin\/demo/);
    await expect(sendSourceText(url, [{ ...files[0]!, file: join(folder, 'gone.js') }], 'desk', '1.2')).rejects.toThrow('cannot be read: it is gone');
    await rm(file);
  });

  test('a problem becomes a message with what to do, a silent server too', async () => {
    answers = [{ status: 409, body: '{"title":"Still being read","detail":"It is.","action":"Wait."}' }];
    await expect(call(`${url}/api/x`)).rejects.toThrow('Still being read: It is. Wait.');
    await expect(call('http://127.0.0.1:9/api/x')).rejects.toThrow(/does not answer.*bin\/demo/);
  });

  test('an import is followed to its end', async () => {
    answers = ['receiving', 'reading', 'done'].map((state) => ({ status: 200, body: JSON.stringify({ id: 7, state }) }));
    const seen: string[] = [];
    expect(await waitForImport(url, 7, { progress: (info) => void seen.push(info.state) })).toMatchObject({ state: 'done' });
    expect(seen).toEqual(['receiving', 'reading', 'done']);
  });
});

describe('running programs', () => {
  test('the end and what was said are told, a missing program too', async () => {
    expect(await run('sh', ['-c', 'echo out; echo err >&2; exit 3'])).toEqual({ code: 3, stdout: 'out\n', stderr: 'err\n' });
    expect((await run('no-such-program', [])).code).toBe(127);
  });
});
