<script setup lang="ts">
import { computed, onMounted } from 'vue';
import { useRoute } from 'vue-router';
import FirstWalk from './first/FirstWalk.vue';
import FinderField from './frame/FinderField.vue';
import FootLine from './frame/FootLine.vue';
import KeyHelp from './frame/KeyHelp.vue';
import LeftStrip from './frame/LeftStrip.vue';
import ScopeMenu from './frame/ScopeMenu.vue';
import WindowMenu from './frame/WindowMenu.vue';
import CommandField from './keys/CommandField.vue';
import { useCommands } from './keys/commands.ts';
import LiveSwitch from './live/LiveSwitch.vue';
import SaidNote from './share/SaidNote.vue';
import { useSummary } from './stores/summary.ts';
import { useLook } from './theme/use-theme.ts';
import { ZONE } from './time/format.ts';

const look = useLook();
const store = useSummary();
const route = useRoute();
/** The lines have all of the screen. */
const full = computed(() => typeof route.query.view === 'string' && route.query.view.split('.').includes('full'));
onMounted(() => void store.refresh());
useCommands('', [{ name: 'light or dark', keys: ['t'], run: look.toggle }]);
</script>
<template>
  <v-app>
    <div class="frame">
      <header v-show="!full" class="band">
        <RouterLink to="/rounds" class="mark" aria-label="Fadenweg, to the rounds">
          <svg width="30" height="30" viewBox="0 0 32 32" aria-hidden="true">
            <g fill="none" stroke-linecap="round">
              <path d="M8 4v24M16 4v24M24 4v24" stroke="var(--undyed)" stroke-width="1.3" />
              <path d="M8 6c0 5 16 4 16 9s-16 4-16 9c0 2 4 3 8 3" stroke="var(--indigo)" stroke-width="3" />
            </g>
          </svg>
        </RouterLink>
        <FinderField />
        <ScopeMenu />
        <WindowMenu />
        <LiveSwitch />
        <span class="room"></span>
        <span class="soft zone" :title="'Times are shown in this zone'">{{ ZONE }}</span>
        <button type="button" class="theme" :aria-label="look.dark.value ? 'Light theme' : 'Dark theme'" @click="look.toggle">
          <svg width="20" height="20" viewBox="0 0 20 20" aria-hidden="true">
            <circle cx="10" cy="10" r="6.5" fill="none" stroke="currentColor" stroke-width="1.6" />
            <path d="M10 3.5a6.5 6.5 0 0 1 0 13z" fill="currentColor" />
          </svg>
        </button>
        <span class="person" role="img" aria-label="local administrator" title="local administrator">la</span>
      </header>
      <FirstWalk v-show="!full" />
      <div class="middle">
        <LeftStrip v-show="!full" />
        <RouterView v-slot="{ Component }"><component :is="Component" class="work" /></RouterView>
      </div>
      <FootLine v-show="!full" />
      <KeyHelp />
      <CommandField />
      <SaidNote />
    </div>
  </v-app>
</template>
<style scoped>
.frame {
  height: 100vh;
  display: flex;
  flex-direction: column;
}
.band {
  height: 52px;
  flex: none;
  display: flex;
  align-items: center;
  background: var(--paper);
  border-bottom: 1px solid var(--seam);
  padding-right: 16px;
  box-sizing: border-box;
}
.mark {
  width: 64px;
  display: grid;
  place-items: center;
  margin-right: 14px;
}
.finder {
  margin-right: 14px;
}
.room {
  flex: 1;
}
.zone {
  font-size: 13px;
  white-space: nowrap;
}
.theme {
  background: none;
  border: 0;
  color: var(--soft-ink);
  cursor: pointer;
  padding: 6px 10px;
  line-height: 0;
}
.person {
  width: 26px;
  height: 26px;
  border-radius: 50%;
  background: var(--indigo);
  color: var(--paper);
  display: grid;
  place-items: center;
  font-size: 12px;
  font-weight: 700;
}
.middle {
  flex: 1;
  min-height: 0;
  display: flex;
}
.work {
  flex: 1;
  min-width: 0;
  min-height: 0;
}
/* at twice the size on a small screen the band takes two lines, and a view is moved sideways below it */
@media (max-width: 860px) {
  .band {
    height: auto;
    flex-wrap: wrap;
    padding: 4px 10px 4px 0;
  }
  .mark {
    margin-right: 4px;
  }
  .zone {
    display: none;
  }
  .middle {
    overflow: auto;
  }
  .middle > .strip {
    position: sticky;
    left: 0;
    z-index: 6;
  }
  .work {
    flex: 1 0 auto;
    width: 760px;
    min-height: 420px;
  }
}
</style>
