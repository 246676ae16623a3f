import type { ChangesRoom } from '../changes/room.ts';
import { Access, guarded, type Guarded } from '../platform/access.ts';
import type { Platform, Room } from '../platform/room.ts';
import { explanationRoutes } from './explanation-routes.ts';
import { OwnCodes } from './own-codes.ts';
import { ownPackageRoutes } from './own-package-routes.ts';
import { OwnPackages } from './own-packages.ts';
import { sourceTextRoutes } from './source-text-routes.ts';
import { SourceTextRepository } from './source-text-rows.ts';
import { SourceTexts } from './source-texts.ts';

/** What helps to understand a record: codes of one's own, packages of one's own, the text of the program that wrote it. */
export interface Explaining extends Room {
  codes: Guarded<OwnCodes>;
}

export function explainingRoom({ data }: Platform, { changes }: ChangesRoom): Explaining {
  const own = new OwnCodes(data.by(Access.ownWork).db);
  const codes = guarded(() => own); // what they mean is everybody's
  return {
    codes,
    endpoints: guarded((access) => {
      const { db } = data.by(access);
      const texts = new SourceTextRepository(db);
      return [
        ...explanationRoutes(codes.by(access)),
        ...ownPackageRoutes(new OwnPackages(db)),
        ...sourceTextRoutes(texts, new SourceTexts(texts, changes.by(access))),
      ];
    }),
  };
}
