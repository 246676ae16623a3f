<script setup lang="ts"></script>
<template>
  <main class="nowhere">
    <h1>Nothing is at this address</h1>
    <p>The link may be cut off. <RouterLink to="/strands">Go to the strands</RouterLink>, or paste what you look for into the field above.</p>
  </main>
</template>
<style scoped>
.nowhere {
  padding: 40px;
}
</style>
