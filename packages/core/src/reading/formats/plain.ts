import type { Reader, Draft } from './shared.ts';

/** Any lines: each is kept whole, none is understood. The last resort, so that nothing is lost. */
export const plain: Reader = {
  format: 'plain',
  confidence: () => 0.01,
  open: () => ({
    start: () => {},
    begins: (line) => line.charCodeAt(0) !== 32 && line.charCodeAt(0) !== 9,
    read: (text: string, draft: Draft) => {
      draft.message = text;
    },
  }),
};
