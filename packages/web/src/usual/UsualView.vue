<script setup lang="ts">
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import { useCommands } from '../keys/commands.ts';
import { useShare } from '../share/use-share.ts';
import { ms } from '../strands/duration-text.ts';
import { count, dayAndClock } from '../time/format.ts';
import { changeWords, place, rangeWords, ROW, rowsOf, shareWords, spanWords } from './rows.ts';
import SideSheet from '../frame/SideSheet.vue';
import ExpectationsForm from './ExpectationsForm.vue';
import UsualPicture from './UsualPicture.vue';

/** What is normal for a flow: its path, how long each part takes, what numbers it states, and which ways it takes. */
const props = defineProps<{ name: string }>();
const route = useRoute();
const router = useRouter();
const usual = useRequest([() => props.name], () => api.get('/flows/{name}/usual', { params: { name: props.name } }));
const rare = computed(() => route.query.rare === 'yes');
const shown = computed(() => (usual.answer.value ? rowsOf(usual.answer.value, rare.value ? 0 : 0.05) : { rows: [], lanes: [] }));
const hidden = computed(() => (usual.answer.value?.sayings.length ?? 0) - shown.value.rows.length);
const stitches = computed(() => shown.value.rows.map((row) => ({ lane: shown.value.lanes.indexOf(row.component), share: row.share })));
const times = computed(() =>
  shown.value.rows.flatMap((row) => (row.medianMs === null ? [] : [Math.max(0.1, row.medianMs), Math.max(0.1, row.p99Ms!)])),
);
const [least, most] = [computed(() => Math.min(...times.value)), computed(() => Math.max(...times.value))];
const at = (time: number): string => `${place(time, least.value, most.value) * 100}%`;
const TABS = [{ name: 'expectations', label: 'Expectations' }];
const expecting = computed(() => route.query.expect === 'yes');
const share = useShare();
useCommands('The usual', [{ name: 'copy a link to exactly this view', keys: ['c'], run: () => void share.copyLink() }]);
</script>
<template>
  <main class="usual">
    <div class="left">
      <h1 v-if="!usual.answer.value" class="visually-hidden">The usual {{ name }}</h1>
      <ProblemNote v-if="usual.problem.value" :problem="usual.problem.value" @again="usual.again" />
      <p v-else-if="!usual.answer.value" class="waiting soft" role="status">Loading…</p>
      <template v-else>
        <header>
          <h1>The usual {{ usual.answer.value.label }}</h1>
          <p>
            Takes {{ ms(usual.answer.value.whole.medianMs) }}, nine of ten within {{ ms(usual.answer.value.whole.p90Ms) }}, 99 of 100 within
            {{ ms(usual.answer.value.whole.p99Ms) }}, with {{ count(usual.answer.value.records.median) }} records ({{
              usual.answer.value.records.least
            }}
            to {{ usual.answer.value.records.most }}).
          </p>
          <p>
            Silence behind the last record counts as stalled where what nearly always comes next is overdue; where nothing does, after
            {{ ms(usual.answer.value.patienceMs) }}. What is declared counts before that.
          </p>
          <p v-if="usual.answer.value.changed[0]">
            Changed for good on {{ dayAndClock(usual.answer.value.changed[0].at) }}: since then
            {{ usual.answer.value.changed.map(changeWords).join('; ') }}. Strands that began before are judged by what was usual then.
          </p>
          <p v-for="one of usual.answer.value.whole.times" :key="spanWords(one)">
            {{ spanWords(one) }} ({{ usual.answer.value.zone }}) it takes {{ ms(one.medianMs) }}, 99 of 100 within {{ ms(one.p99Ms) }}: so on
            {{ count(one.days) }} days.
          </p>
          <p class="soft">
            Learned from {{ count(usual.answer.value.legs) }} that went well, from {{ dayAndClock(usual.answer.value.since) }} to
            {{ dayAndClock(usual.answer.value.until) }}, beside {{ count(usual.answer.value.bad) }} that did not.
            <RouterLink :to="{ name: 'strands', query: { flow: usual.answer.value.flow } }">Its strands</RouterLink>
          </p>
          <ul v-if="usual.answer.value.variants.length > 1" class="ways" aria-label="Ways through the components">
            <li v-for="(way, i) in usual.answer.value.variants.slice(0, 4)" :key="i">
              <b class="number">{{ shareWords(way.share) }}</b> {{ way.components.join(' → ') }}
            </li>
            <li v-if="usual.answer.value.variants.length > 4" class="soft">
              and {{ usual.answer.value.variants.length - 4 }} rarer {{ usual.answer.value.variants.length === 5 ? 'way' : 'ways' }}
            </li>
          </ul>
          <ul v-if="usual.answer.value.continues.length > 0" class="ways" aria-label="What it goes on with">
            <li v-for="(one, i) in usual.answer.value.continues" :key="i">
              <b class="number">{{ shareWords(one.legs / one.of) }}</b> go on with {{ one.component }}: <span class="mono">{{ one.text }}</span>
              {{ ms(one.medianMs) }} later, 99 of 100 within {{ ms(one.p99Ms)
              }}<template v-if="one.surely">; where it never comes, it is missed</template>
            </li>
          </ul>
        </header>
        <div class="scroller" tabindex="0" role="region" aria-label="The usual path">
          <div class="path">
            <UsualPicture :lanes="shown.lanes" :stitches="stitches" />
            <table class="plain-table" :style="{ '--row': `${ROW}px` }">
              <thead>
                <tr>
                  <th>What is said</th>
                  <th class="number">Of the good</th>
                  <th class="number">Of others</th>
                  <th class="number">After</th>
                  <th class="number">99 % within</th>
                  <th class="bar"><span class="visually-hidden">On a scale of factors</span></th>
                  <th>Numbers</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="(row, i) in shown.rows" :key="i">
                  <td class="said" :title="`${row.component}: ${row.text} ${row.traits}`">
                    <span class="visually-hidden">{{ row.component }}: </span><span class="mono">{{ row.text }}</span>
                    <span class="soft mono">{{ row.traits }}</span>
                  </td>
                  <td class="number">
                    {{ shareWords(row.share) }}<span v-if="row.most > 1" class="soft"> ×{{ row.most }}</span>
                  </td>
                  <td class="number soft">{{ usual.answer.value.bad === 0 ? '–' : row.badShare === 0 ? 'none' : shareWords(row.badShare) }}</td>
                  <td class="number">{{ row.medianMs === null ? '' : ms(row.medianMs) }}</td>
                  <td class="number">{{ row.p99Ms === null ? '' : ms(row.p99Ms) }}</td>
                  <td class="bar" aria-hidden="true">
                    <span v-if="row.medianMs !== null" class="rail"
                      ><i :style="{ left: at(row.medianMs), right: `calc(100% - ${at(row.p99Ms!)})` }"></i
                    ></span>
                  </td>
                  <td class="numbers" :title="[...row.volumes.map(rangeWords), ...row.otherwise].join('; ')">
                    {{ [...row.volumes.map(rangeWords), ...row.otherwise].join('; ') }}
                  </td>
                </tr>
              </tbody>
            </table>
          </div>
          <p class="soft more">
            <template v-if="hidden > 0">{{ count(hidden) }} that fewer than 5 % have are left out · </template>
            <button
              v-if="hidden > 0 || rare"
              type="button"
              class="link"
              @click="router.replace({ query: { ...route.query, rare: rare ? undefined : 'yes' } })"
            >
              {{ rare ? 'leave out what fewer than 5 % have' : 'show them' }}
            </button>
          </p>
        </div>
      </template>
      <p class="acts">
        <button
          type="button"
          class="link"
          :aria-pressed="expecting"
          @click="router.replace({ query: { ...route.query, expect: expecting ? undefined : 'yes' } })"
        >
          {{ expecting ? 'close expectations' : 'declare expectations' }}
        </button>
      </p>
    </div>
    <SideSheet v-if="expecting" :tabs="TABS" tab="expectations"><ExpectationsForm :name="name" @saved="usual.again" /></SideSheet>
  </main>
</template>
<style scoped>
.usual {
  display: flex;
  min-height: 0;
}
.left {
  position: relative;
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
}
.acts {
  position: absolute;
  right: 16px;
  top: 10px;
  margin: 0;
  z-index: 1;
}
.waiting {
  padding: 24px;
}
header {
  padding: 10px 16px 8px;
  border-bottom: 1px solid var(--seam);
}
h1 {
  font-size: 17px;
  margin: 0;
}
header p {
  margin: 2px 0;
}
.ways {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
}
.ways b {
  display: inline-block;
  width: 48px;
}
.scroller {
  flex: 1;
  overflow: auto;
  min-height: 0;
}
.path {
  display: flex;
  align-items: flex-start;
  min-width: 940px;
}
table {
  flex: 1;
  table-layout: fixed;
}
thead th {
  height: 96px;
  vertical-align: bottom;
  padding: 0 8px 6px;
  box-sizing: border-box;
}
tbody tr {
  height: var(--row);
}
td {
  height: var(--row);
  padding: 0 8px;
  box-sizing: border-box;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
th:nth-child(1) {
  width: auto;
}
th.number {
  width: 78px;
}
th.bar {
  width: 96px;
}
th:last-child {
  width: 104px;
}
.bar {
  vertical-align: middle;
}
.rail {
  display: block;
  position: relative;
  height: 8px;
  background: linear-gradient(var(--seam), var(--seam)) center / 100% 1px no-repeat;
}
.rail i {
  position: absolute;
  top: 0;
  bottom: 0;
  min-width: 3px;
  background: var(--indigo);
}
.more {
  padding: 6px 16px;
}
.said {
  min-width: 220px;
}
</style>
