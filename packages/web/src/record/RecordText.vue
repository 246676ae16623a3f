<script setup lang="ts">
import { computed } from 'vue';
import { piecesOf } from './pieces.ts';
import { weighedParts } from './weighed.ts';

/** The text of a record, word for word; words that make it weigh are marked. */
const props = defineProps<{ text: string }>();
const pieces = computed(() => piecesOf(props.text));
</script>
<template>
  <pre class="mono text" tabindex="0" aria-label="Text of the record"><span
      v-for="(piece, i) in pieces"
      :key="i"
      :class="{ piece: pieces.length > 1 }"
      ><template v-if="i === 0"
        ><template v-for="(part, k) in weighedParts(piece)" :key="k"
          ><mark v-if="part.weight > 0" class="weighs" :class="{ much: part.weight > 1 }">{{ part.text }}</mark
          ><template v-else>{{ part.text }}</template></template></template
      ><template v-else>{{ piece }}</template></span></pre>
</template>
<style scoped>
.weighs {
  background: none;
  color: inherit;
  text-decoration: underline 2px var(--weld);
  text-underline-offset: 3px;
}
.weighs.much {
  text-decoration-color: var(--madder);
}
.text {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  background: var(--linen);
  border: 1px solid var(--seam);
  padding: 6px 8px;
  margin: 0;
  max-height: 260px;
  overflow: auto;
  line-height: 18px;
  unicode-bidi: plaintext;
}
.piece {
  display: block;
  content-visibility: auto;
  contain-intrinsic-block-size: auto 1300px;
}
</style>
