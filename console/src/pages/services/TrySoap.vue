<script setup lang="ts">
import { Button, Select, Textarea } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import type { ServiceView } from '@/api/client'
import LoadState from '@/components/LoadState.vue'
import { PLACE } from '@/api/place'
import { asCurl, type Trial } from './curl'
import { useExamples } from './examples'
import TriedAnswer from './TriedAnswer.vue'
import { useTrial } from './tried'
import { indented } from './xml'

const props = defineProps<{ service: ServiceView }>()

interface Example {
  operation: string
  describe: string
  envelope: string
}

const path = computed(() => `${props.service.name}/v${props.service.version}`)
const { examples, name, chosen, options } = useExamples<Example>(
  () => `/manage/v1/contracts/${path.value}/soap-examples`,
  (one) => one.operation,
  /^Find/,
)
const envelope = ref('')
const { answer, problem, busy, send } = useTrial(indented)

watch(
  chosen,
  (now) => {
    answer.value = null
    envelope.value = now?.envelope ?? ''
  },
  { immediate: true },
)

const trial = computed<Trial>(() => ({
  method: 'POST',
  path: `/soap/${path.value}`,
  body: envelope.value,
  type: 'text/xml',
}))
const curl = computed(() => asCurl(trial.value, location.origin + PLACE))
</script>

<template>
  <LoadState :loading="examples.isLoading.value" :error="examples.error.value" @retry="examples.refetch()">
    <div v-if="chosen" class="try">
      <div class="row">
        <Select
          :value="chosen.operation"
          :options="options"
          style="width: 220px"
          aria-label="SOAP operation"
          @change="(now) => (name = String(now))"
        />
        <span class="quiet">{{ chosen.describe }}</span>
        <div class="spacer"></div>
        <Button type="primary" :loading="busy" @click="send(trial)">Send</Button>
      </div>
      <Textarea
        v-model:value="envelope"
        class="mono"
        :auto-size="{ minRows: 6, maxRows: 18 }"
        aria-label="Envelope"
      />
      <TriedAnswer
        :curl="curl"
        :changes="!/^(Find|Get)/.test(chosen.operation)"
        :problem="problem"
        :answer="answer"
        test="soap-answer"
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
