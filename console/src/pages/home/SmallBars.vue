<script setup lang="ts">
import { computed } from 'vue'

/** Some days side by side, what failed of them in another colour: small enough to stand beside a figure. */
const props = defineProps<{ days: { day: string; all: number; failed: number }[]; label: string }>()
const WIDTH = 9
const HEIGHT = 44
const highest = computed(() => Math.max(1, ...props.days.map((one) => one.all)))
const bars = computed(() =>
  props.days.map((one, at) => {
    const all = Math.max(one.all ? 1 : 0, Math.round((one.all / highest.value) * HEIGHT))
    const failed = one.failed ? Math.max(2, Math.round((one.failed / highest.value) * HEIGHT)) : 0
    return { ...one, x: at * WIDTH, height: all, bad: failed }
  }),
)
const said = computed(
  () =>
    `${props.label}: ${props.days.map((one) => `${one.day} ${one.all}${one.failed ? `, ${one.failed} failed` : ''}`).join('; ')}`,
)
</script>

<template>
  <svg
    :viewBox="`0 0 ${days.length * WIDTH} ${HEIGHT + 1}`"
    :width="days.length * WIDTH"
    :height="HEIGHT + 1"
    role="img"
    :aria-label="said"
  >
    <line x1="0" :x2="days.length * WIDTH" :y1="HEIGHT + 0.5" :y2="HEIGHT + 0.5" stroke="var(--line)" />
    <g v-for="bar in bars" :key="bar.day">
      <title>{{ bar.day }}: {{ bar.all }} calls, {{ bar.failed }} failed</title>
      <rect
        :x="bar.x"
        :y="HEIGHT - bar.height"
        :width="WIDTH - 2"
        :height="bar.height"
        fill="var(--action)"
      />
      <rect :x="bar.x" :y="HEIGHT - bar.bad" :width="WIDTH - 2" :height="bar.bad" fill="var(--bad)" />
    </g>
  </svg>
</template>
