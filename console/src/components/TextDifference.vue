<script setup lang="ts">
import { lineDifference } from './difference'

/** Two texts as one, with what goes and what comes. */
defineProps<{ before: string; after: string }>()
const SIGNS = { same: ' ', added: '+', removed: '−' }
</script>

<template>
  <pre class="difference" tabindex="0" aria-label="Difference"><span
    v-for="(line, place) in lineDifference(before, after)"
    :key="place"
    :class="line.kind"
  >{{ SIGNS[line.kind] }} {{ line.text }}
</span></pre>
</template>

<style scoped>
.difference {
  max-height: 60vh;
  overflow: auto;
  margin: 0;
  font-size: 12.5px;
  line-height: 1.55;
}
.added {
  background: #1d8a5226;
}
.removed {
  background: #c4352b26;
}
</style>
