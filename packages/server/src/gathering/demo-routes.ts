import type { ImportInfo, Page } from '@fadenweg/api';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { Refusal } from '../platform/http/problems.ts';
import type { WorkKind } from '../platform/work/types.ts';
import type { Work } from '../platform/work/work.ts';
import type { ImportService } from './import-service.ts';

/** Makes the demo's data and brings them in with all that is declared about them; takes the declarations back. */
export interface Demo {
  load(): Promise<void>;
  forget(): Promise<void>;
}

const NAME = 'load-demo';
export const makingDemo = (demo: Demo): WorkKind<null> => ({
  name: NAME,
  label: 'Making the demo’s data',
  mostTries: 2,
  run: async ({ tell }) => {
    tell('making a day of the lens works and bringing it in');
    await demo.load();
  },
});

/** Made-up data to try things with: loaded and removed from the application, always an environment of its own. */
export function demoRoutes(demo: Demo | null, imports: ImportService, work: Work): AnyEndpoint[] {
  return [
    endpoint({
      method: 'post',
      path: '/demo',
      summary: 'Makes the demo data and brings them in, in the background',
      status: 202,
      async run({ access }): Promise<{ loading: true }> {
        if (!demo) throw new Refusal(409, 'No demo here', 'This server was started without the demo’s stand-in.', 'Start it with bin/demo.');
        if ((await imports.rows.latest(1000)).some((row) => row.demo)) throw new Refusal(409, 'Loaded already', 'The demo data are loaded already.');
        if ((await work.list(['waiting', 'running'], null, 500)).some((one) => one.kind === NAME))
          throw new Refusal(409, 'Being loaded', 'The demo data are being made at the moment.', 'See Imports for the progress.');
        await work.ask(NAME, { why: 'somebody asked for it', who: access.who, args: null });
        return { loading: true };
      },
    }),
    endpoint({
      method: 'delete',
      path: '/demo',
      summary: 'Removes the demo data, whole',
      async run({ access }): Promise<Page<ImportInfo>> {
        for (const row of await imports.rows.latest(1000)) if (row.demo) await imports.remove(row.id, access);
        await demo?.forget();
        return { items: [], next: null };
      },
    }),
  ];
}
