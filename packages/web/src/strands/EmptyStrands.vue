<script setup lang="ts">
/** What to do where nothing is loaded. */
</script>
<template>
  <div class="empty">
    <h1>Nothing is loaded yet</h1>
    <p>
      Bring in the logs of your systems: drop files or a whole folder on <RouterLink to="/sources">Sources</RouterLink>, or run
      <code class="mono">bin/fadenweg import PATH</code>.
    </p>
  </div>
</template>
<style scoped>
.empty {
  padding: 48px;
  max-width: 620px;
}
.empty p {
  margin-top: 8px;
}
</style>
