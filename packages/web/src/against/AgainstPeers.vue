<script setup lang="ts">
import type { Against, AgainstPeer } from '@fadenweg/api';
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import OutcomeGlyph from '../glyphs/OutcomeGlyph.vue';
import { OUTCOME_WORDS } from '../glyphs/outcomes.ts';
import { ms } from '../strands/duration-text.ts';
import { count } from '../time/format.ts';

/** Outcomes and flows on both sides, and others of the same kind, each one a way to the same page of that one. */
const props = defineProps<{ against: Against }>();
const route = useRoute();
const kinds = computed(() => ({ party: `Other ${props.against.of}s`, component: 'Components of these flows', host: 'Hosts of these flows', version: `Versions of ${props.against.of}` })[props.against.what]); // prettier-ignore
/** How often they are amiss says something of parties and versions; a component that comes late sees none that broke off before. */
const telling = computed(() => props.against.what === 'party' || props.against.what === 'version');
const to = ({ name }: AgainstPeer) => ({ name: 'against', query: { ...route.query, name } });
const share = (some: number, all: number): string => (all === 0 ? '–' : `${((100 * some) / all).toFixed(some / all < 0.1 ? 1 : 0)} %`);
</script>
<template>
  <aside aria-label="Beside it">
    <section>
      <h2>How they ended</h2>
      <table class="plain-table">
        <thead>
          <tr>
            <th scope="col">Outcome</th>
            <th scope="col" class="number">it</th>
            <th scope="col" class="number">others</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in against.outcomes" :key="one.outcome">
            <th scope="row"><OutcomeGlyph :outcome="one.outcome" :size="16" /> {{ OUTCOME_WORDS[one.outcome] }}</th>
            <td class="number">
              {{ count(one.own * against.sampled.own) }} <span class="soft">{{ share(one.own * against.sampled.own, against.strands.own) }}</span>
            </td>
            <td class="number">
              {{ count(one.others * against.sampled.others) }}
              <span class="soft">{{ share(one.others * against.sampled.others, against.strands.others) }}</span>
            </td>
          </tr>
        </tbody>
      </table>
    </section>
    <section v-if="against.peers.length > 0">
      <h2>{{ kinds }}</h2>
      <table class="plain-table">
        <thead>
          <tr>
            <th scope="col">Name</th>
            <th scope="col" class="number">strands</th>
            <th v-if="telling" scope="col" class="number">amiss</th>
            <th scope="col" class="number">{{ against.what === 'component' ? 'work' : 'half within' }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="peer in against.peers" :key="peer.name" :class="{ self: peer.own }">
            <th scope="row">
              <b v-if="peer.own">{{ peer.name }}</b><RouterLink v-else :to="to(peer)">{{ peer.name }}</RouterLink>
            </th>
            <td class="number">{{ count(peer.strands) }}</td>
            <td v-if="telling" class="number">
              {{ count(peer.amiss) }} <span class="soft">{{ peer.expected.toFixed(peer.expected < 10 ? 1 : 0) }}</span>
            </td>
            <td class="number">{{ peer.medianMs === null ? '–' : ms(peer.medianMs) }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="telling" class="soft">Amiss, and in grey how many were if it were as all of its flows.</p>
    </section>
  </aside>
</template>
<style scoped>
aside {
  width: 340px;
  flex: none;
  border-left: 1px solid var(--seam);
  overflow: auto;
  padding: 12px 16px;
  background: var(--paper);
  box-sizing: border-box;
}
section {
  margin-bottom: 16px;
}
td,
th {
  padding-left: 6px;
  padding-right: 6px;
}
th[scope='row'] {
  text-align: left;
  font-weight: 400;
  overflow-wrap: anywhere;
}
.self {
  background: var(--indigo-wash);
}
</style>
