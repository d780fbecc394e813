<script setup lang="ts">
import { Input, Segmented } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { allFunctions } from '@/api/logic'
import { useModel } from '@/composables/model'
import { choicesIn } from '@/conditions/operands'

/** Fields and functions with examples, to be put where the cursor is. */
const props = defineProps<{ object?: string; part?: string }>()
const emit = defineEmits<{ insert: [text: string] }>()

const view = ref<'Fields' | 'Functions'>('Fields')
const search = ref('')
const { objects } = useModel('OUTLINE')
const functions = useQuery({ queryKey: ['functions'], queryFn: allFunctions, staleTime: Infinity })
const wanted = computed(() => search.value.trim().toLowerCase())
const MOST = 60
const fields = computed(() =>
  choicesIn({
    objects: objects.value,
    object: objects.value.find((one) => one.name === props.object),
    part: props.part,
  })
    .filter((one) => `${one.full} ${one.value}`.toLowerCase().includes(wanted.value))
    .slice(0, MOST),
)
const found = computed(() =>
  (functions.data.value ?? []).filter((one) =>
    `${one.name} ${one.describe} ${one.chapter}`.toLowerCase().includes(wanted.value),
  ),
)
const written = (one: { operand: { kind: string; function?: string; text?: string } }) =>
  one.operand.kind === 'TOTAL'
    ? `${one.operand.function!.toLowerCase()}(${one.operand.text})`
    : (one.operand.text ?? '')
</script>

<template>
  <div class="browser">
    <div class="row">
      <Segmented v-model:value="view" :options="['Fields', 'Functions']" size="small" />
      <Input v-model:value="search" allow-clear size="small" placeholder="Find" aria-label="Find" />
    </div>
    <ul v-if="view === 'Fields'">
      <li v-for="one in fields" :key="one.group + one.value">
        <button @click="emit('insert', written(one))">
          <code>{{ written(one) }}</code>
          <span class="quiet">{{ one.full }}{{ one.field ? `, ${one.field.typeWords}` : '' }}</span>
        </button>
      </li>
      <li v-if="!fields.length" class="quiet">No field is called like this.</li>
    </ul>
    <ul v-else>
      <li v-for="one in found" :key="one.name">
        <button @click="emit('insert', one.forms[0])">
          <code>{{ one.forms[0] }}</code>
          <span class="quiet">{{ one.describe }}</span>
          <span v-if="one.examples[0]" class="example mono"
            >{{ one.examples[0].expression }} → {{ one.examples[0].result }}</span
          >
        </button>
      </li>
      <li v-if="!found.length" class="quiet">No function is called like this.</li>
    </ul>
  </div>
</template>

<style scoped>
.browser {
  width: min(440px, 80vw);
}
ul {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
  max-height: 300px;
  overflow: auto;
}
button {
  display: grid;
  gap: 1px;
  width: 100%;
  text-align: left;
  border: 0;
  background: none;
  color: var(--text);
  font: inherit;
  font-size: 12.5px;
  padding: 4px 6px;
  border-radius: 4px;
  cursor: pointer;
}
button:hover,
button:focus-visible {
  background: var(--action-soft);
}
.example {
  font-size: 11.5px;
  color: var(--sand);
}
</style>
