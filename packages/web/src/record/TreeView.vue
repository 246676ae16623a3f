<script setup lang="ts">
import { rootOf, type Broken, type FlatTree } from '@fadenweg/core/structure';
import { useVirtualizer } from '@tanstack/vue-virtual';
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';
import { useSaid } from '../share/use-share.ts';
import { foldedAtFirst, treeRows, type TreeRow } from './tree-rows.ts';

/** JSON or XML as a tree: folded and unfolded, searched, each part with its path. */
const props = defineProps<{ tree: FlatTree; format: 'json' | 'xml'; nodes: number; broken: Broken | null; text: string }>();
const ROW = 21;
const folded = ref(new Set<string>());
const wanted = ref('');
const at = ref(0);
const root = computed(() => rootOf(props.tree));
watch(root, (root) => ((folded.value = foldedAtFirst(root)), (wanted.value = ''), (at.value = 0)), { immediate: true }); // prettier-ignore
const rows = computed(() => treeRows(root.value, folded.value, wanted.value));
const box = useTemplateRef<HTMLElement>('box');
const list = useVirtualizer(computed(() => ({ count: rows.value.length, getScrollElement: () => box.value, estimateSize: () => ROW, overscan: 20 })));
const said = useSaid();
const name = ({ node }: TreeRow): string => (node.name === '' ? (node.kind === 'list' ? 'list' : 'object') : node.name);
const aside = ({ node, open }: TreeRow): string =>
  node.children.length > 0 && (node.kind === 'list' || node.kind === 'object' || !open) ? `${node.children.length} ${node.children.length === 1 ? 'part' : 'parts'}` : ''; // prettier-ignore
function fold(row: TreeRow, on = row.open): void {
  if (row.node.children.length === 0) return;
  const next = new Set(folded.value);
  if (on) next.add(row.path);
  else next.delete(row.path);
  folded.value = next;
}
async function copy({ path }: TreeRow): Promise<void> {
  await navigator.clipboard.writeText(path);
  said.say(`Copied ${path}`);
}
function go(to: number): void {
  at.value = Math.max(0, Math.min(rows.value.length - 1, to));
  list.value.scrollToIndex(at.value);
  void nextTick();
}
function key(event: KeyboardEvent): void {
  const row = rows.value[at.value];
  if (!row || event.ctrlKey || event.metaKey || event.altKey) return;
  const up = (): number => rows.value.slice(0, at.value).findLastIndex((one) => one.depth < row.depth);
  const act = {
    ArrowDown: () => go(at.value + 1),
    ArrowUp: () => go(at.value - 1),
    ArrowRight: () => (row.open ? go(at.value + 1) : fold(row, false)),
    ArrowLeft: () => (row.open && row.node.children.length > 0 ? fold(row, true) : go(up())),
    Home: () => go(0),
    End: () => go(rows.value.length - 1),
    Enter: () => fold(row),
    p: () => void copy(row),
  }[event.key];
  if (!act) return;
  event.preventDefault();
  event.stopPropagation();
  act();
}
/** The place where it breaks, with what stands around it. */
const around = computed(() => {
  if (!props.broken) return '';
  const { at: place } = props.broken;
  return props.text.slice(Math.max(0, place - 30), place + 30).replace(/\s+/g, ' ');
});
</script>
<template>
  <div class="structured">
    <p class="bar">
      <input
        v-model="wanted"
        class="input"
        type="search"
        maxlength="200"
        :aria-label="`Search in this ${format.toUpperCase()}`"
        placeholder="search in it"
      />
      <span class="soft"
        >{{ format.toUpperCase() }}, {{ nodes }} parts<template v-if="wanted.trim()">, {{ rows.length }} shown</template></span
      >
    </p>
    <p v-if="broken" class="broken" role="note">
      It breaks off: {{ broken.why }}, at character {{ broken.at + 1 }}: <span class="mono">…{{ around }}…</span> What is understood is shown.
    </p>
    <div
      ref="box"
      class="rows mono"
      role="tree"
      tabindex="0"
      :aria-label="`${format.toUpperCase()} as a tree; arrow keys move and fold, p copies the path`"
      :aria-activedescendant="rows[at] ? `tree-${at}` : undefined"
      :style="{ height: `${Math.min(rows.length, 18) * ROW + 4}px` }"
      @keydown="key"
    >
      <div :style="{ height: `${list.getTotalSize()}px`, position: 'relative' }" role="presentation">
        <div
          v-for="one in list.getVirtualItems()"
          :id="`tree-${one.index}`"
          :key="rows[one.index]!.path"
          class="row"
          role="treeitem"
          :aria-level="rows[one.index]!.depth + 1"
          :aria-expanded="rows[one.index]!.node.children.length > 0 ? rows[one.index]!.open : undefined"
          :aria-selected="one.index === at"
          :style="{ transform: `translateY(${one.start}px)`, paddingLeft: `${6 + rows[one.index]!.depth * 14}px` }"
          :title="rows[one.index]!.path"
          @click="((at = one.index), fold(rows[one.index]!))"
        >
          <span class="mark" aria-hidden="true">{{ rows[one.index]!.node.children.length === 0 ? '' : rows[one.index]!.open ? '–' : '+' }}</span>
          <span class="name" :class="rows[one.index]!.node.kind">{{ name(rows[one.index]!) }}</span>
          <span class="value" :class="rows[one.index]!.node.kind">{{ rows[one.index]!.node.value }}</span>
          <span class="soft aside">{{ aside(rows[one.index]!) }}</span>
        </div>
      </div>
    </div>
    <p v-if="rows[at]" class="path soft">
      <span class="mono">{{ rows[at]!.path }}</span>
      <button type="button" class="link" @click="copy(rows[at]!)">copy path</button>
      <RouterLink
        v-if="rows[at]!.node.value && rows[at]!.node.value.length <= 100"
        :to="{ name: 'find', query: { q: `'${rows[at]!.node.value.replaceAll(`'`, `''`)}'` } }"
        >find this value</RouterLink
      >
    </p>
    <p v-else class="soft">Nothing in it holds “{{ wanted }}”.</p>
  </div>
</template>
<style scoped>
.structured {
  margin: 6px 0;
}
p {
  margin: 3px 0;
}
.bar {
  display: flex;
  gap: 10px;
  align-items: center;
}
.bar .input {
  width: 150px;
}
.broken {
  border-left: 3px solid var(--madder);
  padding-left: 8px;
  overflow-wrap: anywhere;
}
.rows {
  overflow: auto;
  border: 1px solid var(--seam);
  background: var(--linen);
}
.row {
  position: absolute;
  left: 0;
  right: 0;
  height: 21px;
  display: flex;
  gap: 8px;
  white-space: pre;
  cursor: default;
}
.row[aria-selected='true'] {
  background: var(--indigo-wash);
}
.mark {
  width: 8px;
  flex: none;
  color: var(--soft-ink);
}
.name {
  flex: none;
  color: var(--indigo);
}
.name.attribute {
  color: var(--walnut);
}
.value.number,
.value.truth,
.value.nothing {
  color: var(--woad);
}
.path {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
.path .mono {
  overflow-wrap: anywhere;
}
</style>
