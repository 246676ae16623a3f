import { describe, expect, test } from '@jest/globals';
import { componentOf, dayOfPath, familyOf, folderOf } from './source-naming.ts';

describe('what a source is named by', () => {
  test.each([
    ['order-desk/order-desk.log', 'order-desk'],
    ['logs/order-desk.log', 'order-desk'],
    ['var/log/postgresql-2026-11-24.csv', 'postgresql'],
    ['relay.2026-11-24.log.3', 'relay'],
    ['a/b/edge/access.log', 'edge'],
    ['access.log', 'access'],
    ['.log', 'unnamed'],
    ['2026/app.jsonl', 'app'],
    ['logs.zip/order-desk/app.log.2', 'order-desk'],
    ['order-desk.tar.gz/app.log', 'order-desk'],
    ['relay_20261124-0930.log', 'relay'],
    ['switch/sip.log', 'switch'],
    ['logs/relay-error.log', 'relay'],
    ['relay-json.log', 'relay'],
    ['night shift.zip/relay.log', 'relay'],
    ['night shift.zip/labdb-2026-11-24.csv', 'labdb'],
    ['order-desk.access.log', 'order-desk'],
    ['incident-4711/access.log', 'access'],
    ['incident-4711/edge/access.log', 'edge'],
    ['lens-calc/calc.log', 'lens-calc'],
    ['lens-calc/a.log', 'lens-calc'],
    ['relay/error_ssl.log', 'relay'],
    ['production/order-desk/order-desk.log', 'order-desk'],
    ['containers/desk-7d9f8b6c5-x2x9z_lab_order-desk-0123456789abcdef0123456789abcdef0123456789abcdef0123456789abcdef.log', 'order-desk'],
    ['logs/order-desk-7d9f8b6c5-x2x9z.log', 'order-desk'],
    ['ticket-service/app.log', 'ticket-service'],
    ['ticket-4711/relay.log', 'relay'],
    ['night shift.tar.gz/relay.log', 'relay'],
    ['pods/lab_order-desk-7d9f8b6c5-x2x9z_0d1b2c3d/order-desk/0.log', 'order-desk'],
    ['x/0123456789abcdef0123456789abcdef0123456789abcdef0123456789abcdef/json.log', '0123456789ab'],
  ])('the component of %s is %s', (path, component) => expect(componentOf(path)).toBe(component));

  test('the parts of a rotated log are one family', () => {
    const parts = ['app.log', 'app.log.1', 'app.log.2.gz', 'app.2026-11-24.log', 'app-20261123.log.gz', 'app.1.log', 'app_2026-11-24_0930.log'];
    expect(new Set(parts.map((name) => familyOf(`order-desk/${name}`)))).toEqual(new Set(['order-desk/app.log']));
    expect(familyOf('a/access.log')).not.toBe(familyOf('a/error.log'));
    expect(familyOf('a/app.log')).not.toBe(familyOf('b/app.log'));
    expect(familyOf('2026-11-24')).toBe('2026-11-24');
  });

  test('the day that a path names', () => {
    const day = Date.UTC(2026, 10, 24) / 86_400_000;
    expect(['a/app-20261124.log', '2026-11-24/app.log', 'app.log.2026_11_24.gz'].map(dayOfPath)).toEqual([day, day, day]);
    expect(['app.log', 'app-1234567890.log', 'a/99999999.log'].map(dayOfPath)).toEqual([null, null, null]);
  });
});

describe('folders of machines', () => {
  test.each([
    ['lw-db-1/labdb-004852.csv', 'labdb'],
    ['lw-edge-1/access.log', 'lw-edge-1'],
    ['lw-app-1/order-desk.2026-11-24.log', 'order-desk'],
    ['lw-app-1/order-desk-error.log', 'order-desk'],
    ['lw-app-1/lw-app-1.log', 'lw-app-1'],
    ['lw-log-1/messages', 'lw-log-1'],
  ])('%s is of %s', (path, component) => {
    expect(componentOf(path, true)).toBe(component);
  });
  test('the innermost folder, and those above it', () => {
    expect(folderOf('a/b/c.log')).toEqual({ name: 'b', above: 'a' });
    expect(folderOf('c.log')).toBeNull();
  });
});
