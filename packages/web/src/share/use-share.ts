import type { LogRecord } from '@fadenweg/api';
import { ticketText } from '@fadenweg/core/exchange';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { dayAndClock, ZONE } from '../time/format.ts';
import { useScope } from '../time/scope.ts';
import { useWindow } from '../time/window.ts';

/** Most records that a text for the ticket holds. */
const MOST = 60;
const SHOWN_FOR = 4000;

/** What was just copied, or why not; said for a moment wherever one is. */
export const useSaid = defineStore('said', () => {
  const text = ref('');
  let timer = 0;
  function say(next: string): void {
    text.value = next;
    window.clearTimeout(timer);
    timer = window.setTimeout(() => (text.value = ''), SHOWN_FOR);
  }
  return { text, say };
});

/** Copies a link that shows a colleague exactly this view, and texts for a ticket. */
export function useShare() {
  const route = useRoute();
  const router = useRouter();
  const frame = useWindow();
  const scope = useScope();
  const said = useSaid();

  /** The address of this view, with a window of exact times and the environments named. */
  function link(): string {
    const { from, to } = { from: frame.bounds.value.from ?? scope.span.value.from, to: frame.bounds.value.to ?? scope.span.value.to };
    const timed = ['find', 'strands', 'sources'].includes(String(route.name));
    const query = timed && from && to ? { ...route.query, w: `${from}~${to}`, e: scope.chosen.value.join(',') || undefined } : route.query;
    return `${window.location.origin}${router.resolve({ path: route.path, query }).fullPath}`;
  }
  async function copy(text: string, what: string): Promise<void> {
    try {
      await navigator.clipboard.writeText(text);
      said.say(`${what} copied.`);
    } catch {
      said.say(`${what} could not be copied: the browser does not allow it here.`);
    }
  }
  /** The text for a ticket about these records. */
  function textOf(records: readonly LogRecord[], title = '', sentence = '', facts = ''): string {
    return ticketText({
      title,
      sentence,
      facts,
      lines: records.slice(0, MOST).map((record) => ({
        time: dayAndClock(record.at, 3),
        component: record.component,
        level: record.level,
        text: record.message,
        source: record.source.path,
        line: record.source.line,
      })),
      further: Math.max(0, records.length - MOST),
      zone: ZONE,
      link: link(),
    });
  }
  return {
    link,
    copy,
    textOf,
    copyLink: () => copy(link(), 'The link to this view'),
    copyTicket: (records: readonly LogRecord[], title?: string, sentence?: string, facts?: string) =>
      records.length === 0 && !sentence
        ? Promise.resolve(said.say('Choose a line first (j, k).'))
        : copy(textOf(records, title, sentence, facts), records.length > 1 ? `The text about ${records.length} records` : 'The text for the ticket'),
  };
}
