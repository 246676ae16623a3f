import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { FoundPage, Health, Page, SourceInfo, StrandSummary } from '@fadenweg/api';
import { fuzzApi } from './testing/api-fuzz.ts';
import { bringMorning, makeMorning, startSystem, type System } from './testing/system.ts';

let system: System;
beforeAll(async () => {
  system = await startSystem();
  const { logs } = await makeMorning(system.folder, 3000, 5);
  await bringMorning(system, logs);
});
afterAll(() => system?.stop());

test('no call of the API, however it is spoilt, is a fault of the server, takes long or tells of its inside', async () => {
  const strand = (await system.get<Page<StrandSummary>>('/strands?limit=1')).items[0]!;
  const source = (await system.get<Page<SourceInfo>>('/sources')).items[0]!;
  const record = (await system.get<FoundPage>('/records?limit=1')).items[0]!;
  const real = {
    id: [strand.id, String(source.id), record.id, 'x'],
    name: ['order', 'lens-order'],
    by: ['component', 'level'],
    fields: ['component'],
  };
  const found = await fuzzApi(system.url, { seed: Number(process.env.FADENWEG_FUZZ_SEED ?? 1), each: 3, longest: 5000, real });
  expect(found.faults).toEqual([]);
  expect(found.calls).toBeGreaterThan(700);
  expect(found.byStatus[400]).toBeGreaterThan(200);
  expect((await system.get<Health>('/health')).database.state).toBe('up');
}, 180_000);
