<script setup lang="ts">
import { useRoute } from 'vue-router';
const route = useRoute();
const places = [
  { to: '/rounds', name: 'Rounds', icon: 'M4 7.5h16M4 12h16M4 16.5h16M8 4v16M12 4v16M16 4v16' },
  { to: '/find', name: 'Find', icon: 'M10.5 4a6.5 6.5 0 1 1 0 13 6.5 6.5 0 0 1 0-13M15.5 15.5 20 20' },
  { to: '/strands', name: 'Strands', icon: 'M6 3c0 5 12 4 12 9s-12 4-12 9' },
  { to: '/calls', name: 'Calls', icon: 'M4 6v12M20 6v12M4 9.5h13.5M15 7l2.5 2.5L15 12M20 15H6.5M9 12.5 6.5 15 9 17.5' },
  { to: '/jobs', name: 'Jobs', icon: 'M7 4v6M7 13v7M12 4v3M12 10v4M12 17v3M17 4v9M17 16v4' },
  { to: '/faults', name: 'Faults', icon: 'M3 12h7M14 12h7M10 12c1.5 0 1-4 2.5-4M10 12c1.5 0 1 4 2.5 4M14 12c-1 0-.6-2-1.6-2' },
  { to: '/shapes', name: 'Shapes', icon: 'M4 7h7M14.5 7h5.5M4 12h3M10.5 12h9.5M4 17h9M16.5 17h3.5' },
  { to: '/changes', name: 'Changes', icon: 'M3 13h6c7 0 7-7 3-7s-4 7 3 7h6M6 18h12' },
  { to: '/runbooks', name: 'Runbooks', icon: 'M5 5.5h14M5 12h14M5 18.5h9M3 5.5h.01M3 12h.01M3 18.5h.01' },
  { to: '/sources', name: 'Sources', icon: 'M12 4v11M7.5 10.5 12 15l4.5-4.5M5 20h14' },
];
</script>
<template>
  <nav class="strip" aria-label="Views">
    <RouterLink v-for="place in places" :key="place.to" :to="place.to" class="place" :class="{ here: route.path.startsWith(place.to) }">
      <svg width="22" height="22" viewBox="0 0 24 24" aria-hidden="true">
        <path :d="place.icon" fill="none" stroke="currentColor" stroke-width="1.8" stroke-linecap="round" stroke-linejoin="round" />
      </svg>
      <span>{{ place.name }}</span>
    </RouterLink>
  </nav>
</template>
<style scoped>
.strip {
  width: 64px;
  flex: none;
  overflow-y: auto;
  scrollbar-width: none;
  background: var(--paper);
  border-right: 1px solid var(--seam);
  padding-top: 6px;
  display: flex;
  flex-direction: column;
}
.place {
  flex: none;
  height: 50px;
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  gap: 1px;
  font-size: 11px;
  line-height: 14px;
  color: var(--soft-ink);
  text-decoration: none;
  border-left: 3px solid transparent;
  padding-right: 3px;
}
.place:hover {
  color: var(--ink);
  background: var(--linen);
}
.place.here {
  color: var(--indigo);
  background: var(--indigo-wash);
  border-left-color: var(--indigo);
  font-weight: 700;
}
</style>
