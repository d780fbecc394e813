<script setup lang="ts">
import { Button, Input, Select, Textarea } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import type { ServiceView } from '@/api/client'
import LoadState from '@/components/LoadState.vue'
import { PLACE } from '@/api/place'
import { asCurl, type Trial } from './curl'
import { useExamples } from './examples'
import TriedAnswer from './TriedAnswer.vue'
import { prettyAnswer, useTrial } from './tried'

const props = defineProps<{ service: ServiceView }>()

interface Example {
  label: string
  method: string
  path: string
  body?: string
}

const address = computed(() => `${props.service.name}/v${props.service.version}`)
const { examples, name, chosen, options } = useExamples<Example>(
  () => `/manage/v1/contracts/${address.value}/odata-examples`,
  (one) => one.label,
  /^query/,
)
const path = ref('')
const body = ref('')
const { answer, problem, busy, send } = useTrial(prettyAnswer)

watch(
  chosen,
  (now) => {
    answer.value = null
    path.value = now?.path ?? ''
    body.value = now?.body ?? ''
  },
  { immediate: true },
)

// What was read last is what a change is based on, until another version is written here.
const ifMatch = ref('')
const isChange = computed(() => path.value.includes('(') && (chosen.value?.method ?? 'GET') !== 'GET')
watch(answer, (now) => {
  if (now?.tag) ifMatch.value = now.tag
})

const trial = computed<Trial>(() => ({
  method: chosen.value?.method ?? 'GET',
  path: `/odata/${address.value}/${path.value.replaceAll(' ', '%20')}`,
  body: body.value || undefined,
  ifMatch: (isChange.value && ifMatch.value) || undefined,
}))
const curl = computed(() => asCurl(trial.value, location.origin + PLACE))
</script>

<template>
  <LoadState :loading="examples.isLoading.value" :error="examples.error.value" @retry="examples.refetch()">
    <div v-if="chosen" class="try">
      <div class="row">
        <Select
          :value="chosen.label"
          :options="options"
          style="width: 200px"
          aria-label="OData request"
          @change="(now) => (name = String(now))"
        />
        <Input
          v-model:value="path"
          class="mono"
          :addon-before="chosen.method"
          aria-label="Path and options"
        />
        <Input
          v-if="isChange"
          v-model:value="ifMatch"
          class="mono"
          placeholder="ETag"
          addon-before="If-Match"
          style="width: 190px"
          aria-label="If-Match"
        />
        <Button type="primary" :loading="busy" @click="send(trial)">Send</Button>
      </div>
      <Textarea
        v-if="chosen.body"
        v-model:value="body"
        class="mono"
        :auto-size="{ minRows: 4, maxRows: 14 }"
        aria-label="Body"
      />
      <TriedAnswer
        :curl="curl"
        :changes="chosen.method !== 'GET'"
        :problem="problem"
        :answer="answer"
        test="odata-answer"
      />
    </div>
  </LoadState>
</template>

<style scoped>
.try {
  display: grid;
  gap: 10px;
}
</style>
