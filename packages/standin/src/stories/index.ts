import type { Micros } from '../writing/times.ts';
import { changedSetting } from './changed-setting.ts';
import { coatingQueue } from './coating-queue.ts';
import { doubledFile } from './doubled-file.ts';
import { droppedCalls } from './dropped-calls.ts';
import { frameRefusal } from './frame-refusal.ts';
import { handedOn, oneWay } from './handed-on.ts';
import { lateJobs } from './late-jobs.ts';
import { lostMessages } from './lost-messages.ts';
import { missingRun } from './missing-run.ts';
import { newVersion } from './new-version.ts';
import { nightRestart } from './night-restart.ts';
import { oldFile } from './old-file.ts';
import { poisonedMessage } from './poisoned-message.ts';
import { stockSyncLocks } from './stock-sync-locks.ts';
import type { Story } from './story.ts';
import { thinPriceList } from './thin-price-list.ts';
import { walkedCatalogue } from './walked-catalogue.ts';

const STORIES = [
  stockSyncLocks,
  thinPriceList,
  lostMessages,
  newVersion,
  coatingQueue,
  frameRefusal,
  walkedCatalogue,
  droppedCalls,
  poisonedMessage,
  doubledFile,
  nightRestart,
  changedSetting,
  lateJobs,
  missingRun,
  oldFile,
  handedOn,
  oneWay,
];

/** The stories of a day that begins at this local midnight. The clock of cell-2, and faults that do no harm, are there on every day. */
export const storiesOf = (day: Micros): Story[] => STORIES.map((story) => story(day));
