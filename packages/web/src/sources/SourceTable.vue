<script setup lang="ts">
import type { SourceInfo } from '@fadenweg/api';
import { computed, ref } from 'vue';
import { bytes, count, dayAndClock } from '../time/format.ts';
import SeveralForm from './SeveralForm.vue';
import SourceForm from './SourceForm.vue';

const props = defineProps<{ sources: SourceInfo[] }>();
const emit = defineEmits<{ changed: [] }>();
const chosen = ref<number | null>(null);
const edited = computed(() => props.sources.find((source) => source.id === chosen.value) ?? null);
/** Those that are changed together. */
const marked = ref(new Set<number>());
const together = computed(() => props.sources.filter((source) => marked.value.has(source.id)));
const allMarked = computed(() => props.sources.length > 0 && together.value.length === props.sources.length);
function mark(ids: readonly number[], on: boolean): void {
  const next = new Set(marked.value);
  for (const id of ids) {
    if (on) next.add(id);
    else next.delete(id);
  }
  marked.value = next;
}
const isOn = (event: Event): boolean => (event.target as HTMLInputElement).checked;
const several = computed(() => new Set(props.sources.map((source) => source.environment)).size > 1);
const toldElsewhere = ({ records, copies }: SourceInfo): string => (copies === records ? 'all told there' : `${count(copies)} told there`);
const STATES = { waiting: 'waiting', reading: 'being read', done: 'read', failed: 'not read', cancelled: 'cancelled' } as const;
</script>
<template>
  <div class="both">
    <div class="list">
      <p v-if="sources.length === 0" class="nothing">Nothing is loaded yet. Drop the logs of your systems above.</p>
      <table v-else class="plain-table">
        <thead>
          <tr>
            <th class="mark">
              <input
                type="checkbox"
                aria-label="All sources, to change them together"
                :checked="allMarked"
                :indeterminate="together.length > 0 && !allMarked"
                @change="
                  mark(
                    sources.map((one) => one.id),
                    isOn($event),
                  )
                "
              />
            </th>
            <th>Source</th>
            <th>Component</th>
            <th>Host</th>
            <th v-if="several">Environment</th>
            <th>Format</th>
            <th>Zone</th>
            <th class="number">Records</th>
            <th class="number">Kept whole</th>
            <th>Evidence from, to</th>
            <th class="number">Size</th>
            <th>State</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="source in sources" :key="source.id" :class="{ chosen: source.id === chosen }">
            <td class="mark">
              <input
                type="checkbox"
                :aria-label="`${source.path}, to change it with others`"
                :checked="marked.has(source.id)"
                @change="mark([source.id], isOn($event))"
              />
            </td>
            <td class="mono path">
              <button type="button" class="link" :aria-expanded="source.id === chosen" @click="chosen = source.id === chosen ? null : source.id">
                {{ source.path }}</button><span v-if="source.parts > 1" class="soft"> {{ source.parts }} parts</span>
              <span v-if="source.demo" class="tag">demo</span>
              <span v-if="source.apart" class="tag">told apart</span>
              <span v-if="source.snapshots" class="tag" title="Its rows are states seen at an instant, and no events">states</span>
              <RouterLink
                class="soft"
                :to="{
                  name: 'find',
                  query: { src: source.copyOf?.id ?? source.id, order: 'oldest', tab: 'sources', w: 'all', e: source.environment },
                }"
                >read</RouterLink
              >
              <span v-if="source.copyOf" class="soft copy"
                >copy of <button type="button" class="link" @click="chosen = source.copyOf.id">{{ source.copyOf.path }}</button></span
              >
            </td>
            <td>{{ source.component }}</td>
            <td class="still">{{ source.host || '–' }}</td>
            <td v-if="several">{{ source.environment }}</td>
            <td class="still">
              {{ source.format }} <span class="soft">{{ Math.round(source.confidence * 100) }} %</span>
            </td>
            <td class="still">
              <template v-if="source.understood === 0"><span class="soft">–</span></template
              ><template v-else-if="source.zoneBy === 'stated'"><span class="soft">as written</span></template
              ><template v-else>{{ source.zone }} <span v-if="source.zoneBy === 'guessed'" class="tag">guessed</span></template
              ><template v-if="source.timeLayout"> <span class="tag" :title="source.timeLayout">times typed</span></template
              ><template v-if="source.dateOrderBy === 'guessed'"> <span class="tag">dates guessed</span></template>
            </td>
            <td class="number">
              {{ count(source.records) }}<span v-if="source.copies > 0" class="soft told"><br />{{ toldElsewhere(source) }}</span>
            </td>
            <td class="number" :class="{ some: source.records > source.understood }">{{ count(source.records - source.understood) }}</td>
            <td class="mono range">
              <template v-if="source.from && source.to">{{ dayAndClock(source.from) }}<br />{{ dayAndClock(source.to) }}</template>
            </td>
            <td class="number still">{{ bytes(source.size) }}</td>
            <td>
              {{ STATES[source.state]
              }}<span v-if="source.state === 'reading' && source.size"> {{ Math.round((source.readBytes / source.size) * 100) }} %</span
              ><span v-if="source.error" class="bad"> {{ source.error }}</span>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <SeveralForm v-if="together.length > 1" :sources="together" @changed="emit('changed')" @close="marked = new Set()" />
    <SourceForm v-else-if="edited" :key="edited.id" :source="edited" @changed="emit('changed')" @close="chosen = null" />
  </div>
</template>
<style scoped>
.both {
  display: flex;
  height: 100%;
}
.list {
  flex: 1;
  min-width: 0;
  overflow: auto;
}
.nothing {
  padding: 24px 20px;
}
.still {
  white-space: nowrap;
}
.range {
  font-size: 11.5px;
  line-height: 17px;
  white-space: nowrap;
}
.path {
  overflow-wrap: anywhere;
  line-height: 20px;
  min-width: 150px;
}
.path .link {
  text-align: left;
}
/* beside a name that takes several lines it stands alone, and is still to be hit */
.path a {
  display: inline-block;
  line-height: 24px;
  margin-block: -2px;
}
.mark {
  width: 16px;
}
.copy {
  display: block;
}
.told {
  white-space: nowrap;
}
.chosen td {
  background: var(--indigo-wash);
}
.some {
  color: var(--weld);
  font-weight: 600;
}
td:first-child,
th:first-child {
  padding-left: 20px;
}
</style>
