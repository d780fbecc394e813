<script setup lang="ts">
import { Button, Progress } from 'ant-design-vue'
import { computed } from 'vue'
import { guideSteps, useGuide, useGuideFacts } from '@/composables/guide'

/** The step to take next on the way to a first service, over whatever page is open. */
const { leave } = useGuide()
const facts = useGuideFacts()
const way = computed(() => (facts.value ? guideSteps(facts.value) : undefined))
const step = computed(() => way.value?.steps[way.value.done])
</script>

<template>
  <div v-if="way" class="guide" role="status" data-test="guide">
    <template v-if="step">
      <Progress
        type="circle"
        :percent="(way.done / way.steps.length) * 100"
        :size="26"
        :show-info="false"
        aria-hidden="true"
      />
      <span>Step {{ way.done + 1 }} of {{ way.steps.length }}:</span>
      <strong>{{ step.text }}</strong>
      <RouterLink :to="step.to">Go there</RouterLink>
    </template>
    <strong v-else>That was the whole way: your service answers an outside system.</strong>
    <span class="spacer"></span>
    <Button size="small" type="text" @click="leave">{{ step ? 'Leave the guide' : 'Done' }}</Button>
  </div>
</template>

<style scoped>
.guide {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
  padding: 6px 24px;
  background: var(--sand-soft);
  border-bottom: 1px solid var(--line);
}
.spacer {
  flex: 1;
}
</style>
