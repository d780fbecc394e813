<script setup lang="ts">
import { Alert, Checkbox } from 'ant-design-vue'
import type { components } from '@/api/manage'
import type { Acceptance } from './acceptance'

/** What a release would do: what changes, what stands in the way, and what has to be accepted. */
defineProps<{
  preview: components['schemas']['ReleasePreview']
  /** How long that took when it was rehearsed, in words; absent when it was not. */
  rehearsed?: string
}>()
const accepted = defineModel<Acceptance>({ required: true })
const accept = (more: Partial<Acceptance>) => (accepted.value = { ...accepted.value, ...more })
</script>

<template>
  <ul v-if="preview.changes.length" class="changes" data-test="changes">
    <li v-for="one in preview.changes" :key="one">{{ one }}</li>
  </ul>
  <Alert v-if="preview.obstacles.length" type="error" show-icon message="The data stands in the way">
    <template #description>
      <div v-for="one in preview.obstacles" :key="one">{{ one }}</div>
    </template>
  </Alert>
  <Alert
    v-if="preview.losses.length"
    type="warning"
    show-icon
    message="Data would be taken away"
    data-test="losses"
  >
    <template #description>
      <ul class="changes">
        <li v-for="one in preview.losses" :key="one">{{ one }}</li>
      </ul>
      <div>
        <Checkbox :checked="accepted.losses" @update:checked="accept({ losses: $event })">
          I accept that
        </Checkbox>
      </div>
      <div>
        <Checkbox :checked="accepted.forget" @update:checked="accept({ forget: $event })">
          Keep nothing aside: drop these values at once
        </Checkbox>
      </div>
    </template>
  </Alert>
  <Alert
    v-if="preview.breaks.length"
    type="warning"
    show-icon
    message="Published contracts would break"
    data-test="breaks"
  >
    <template #description>
      <ul class="changes">
        <li v-for="one in preview.breaks" :key="one">{{ one }}</li>
      </ul>
      <p class="quiet">A new version of the service beside this one breaks nobody.</p>
      <Checkbox :checked="accepted.breaks" @update:checked="accept({ breaks: $event })">
        Break them all the same
      </Checkbox>
    </template>
  </Alert>
  <template v-if="preview.follows.length">
    <h2>Done along with it</h2>
    <ul class="changes" data-test="follows">
      <li v-for="one in preview.follows" :key="one">{{ one }}</li>
    </ul>
    <p v-if="rehearsed" class="quiet">{{ rehearsed }}</p>
  </template>
  <Alert v-if="preview.leftBehind.length" type="info" show-icon message="Left behind" data-test="left-behind">
    <template #description>
      <ul class="changes">
        <li v-for="one in preview.leftBehind" :key="one">{{ one }}</li>
      </ul>
    </template>
  </Alert>
</template>

<style scoped>
.changes {
  margin: 0 0 12px;
  padding-left: 18px;
}
.changes li {
  padding: 2px 0;
}
</style>
