<script setup lang="ts">
import { DeleteOutlined, PlusOutlined } from '@ant-design/icons-vue'
import { Button, Select } from 'ant-design-vue'
import { computed } from 'vue'
import type { LogicText } from '@/api/logic'
import { useModel } from '@/composables/model'
import {
  addCheck,
  addLifecycle,
  readChecks,
  readLifecycle,
  removeAt,
  renameAt,
  setAt,
} from '@/editor/logicFile'
import CheckCard from './CheckCard.vue'
import { BOX, stateLayout } from './stateLayout'
import TypedInput from '@/components/TypedInput.vue'

const props = defineProps<{ text: string; object: string; readOnly: boolean }>()
const emit = defineEmits<{ update: [text: string]; chosen: [logic: LogicText] }>()

const { objects } = useModel('OUTLINE')
/** The conditions that are looked at before a transition, with their places in the file. */
const beforeOf = (transition: string) =>
  readChecks(props.text)
    .map((check, at) => ({ check, at }))
    .filter(({ check }) => check.before.split(', ').includes(transition))

const lifecycle = computed(() => readLifecycle(props.text))
const drawing = computed(() => (lifecycle.value ? stateLayout(lifecycle.value) : undefined))
const states = computed(() => (lifecycle.value?.states ?? []).map((value) => ({ value, label: value })))
const set = (path: (string | number)[], value: unknown) =>
  emit('update', setAt(props.text, ['lifecycle', ...path], value))
const typed = (event: Event) => (event.target as HTMLInputElement).value.trim()

function addTransition() {
  const taken = lifecycle.value!.transitions.map((one) => one.name)
  let name = 'newTransition'
  for (let count = 2; taken.includes(name); count++) name = `newTransition${count}`
  set(['transitions', name], { from: lifecycle.value!.initial, to: lifecycle.value!.states.at(-1) })
}
</script>

<template>
  <div v-if="!lifecycle" class="empty">
    <p>No lifecycle. With one, a record has a state, and only transitions change it.</p>
    <Button v-if="!readOnly" type="primary" @click="emit('update', addLifecycle(text))"
      >Add a lifecycle</Button
    >
  </div>
  <div v-else class="lifecycle">
    <svg
      v-if="drawing"
      :viewBox="`0 0 ${drawing.width} ${drawing.height}`"
      :style="{ maxWidth: `${drawing.width * 1.05}px` }"
      role="img"
      aria-label="States and transitions"
    >
      <defs>
        <marker id="tip" viewBox="0 0 8 8" refX="6" refY="4" markerWidth="7" markerHeight="7" orient="auto">
          <path d="M0,0 L8,4 L0,8 z" fill="var(--quiet)" />
        </marker>
      </defs>
      <g v-for="(one, at) in drawing.arrows" :key="at">
        <path :d="one.path" fill="none" stroke="var(--quiet)" stroke-width="1.4" marker-end="url(#tip)" />
        <text :x="one.labelX" :y="one.labelY" text-anchor="middle" class="arrow">{{ one.name }}</text>
      </g>
      <g v-for="box in drawing.boxes" :key="box.name">
        <rect
          :x="box.x"
          :y="box.y"
          :width="BOX.width"
          :height="BOX.height"
          rx="17"
          :class="['state', { first: box.name === lifecycle.initial }]"
        />
        <text :x="box.x + BOX.width / 2" :y="box.y + BOX.height / 2 + 4.5" text-anchor="middle">
          {{ box.name }}
        </text>
      </g>
    </svg>
    <div class="line">
      <span class="quiet">States</span>
      <Select
        :value="lifecycle.states"
        mode="tags"
        :disabled="readOnly"
        style="flex: 1"
        aria-label="States"
        @change="(now) => set(['states'], now)"
      />
      <span class="quiet">begins as</span>
      <Select
        :value="lifecycle.initial"
        :options="states"
        :disabled="readOnly"
        style="width: 140px"
        aria-label="State of a new record"
        @change="(now) => set(['initial'], now)"
      />
    </div>
    <table>
      <thead>
        <tr>
          <th>Transition</th>
          <th>From</th>
          <th>To</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in lifecycle.transitions" :key="one.name">
          <td>
            <TypedInput
              class="name mono"
              :value="one.name"
              :disabled="readOnly"
              aria-label="Name of the transition"
              @change="emit('update', renameAt(text, ['lifecycle', 'transitions'], one.name, typed($event)))"
            />
          </td>
          <td>
            <Select
              :value="one.from"
              mode="multiple"
              :options="states"
              :disabled="readOnly"
              size="small"
              style="width: 100%"
              aria-label="From"
              @change="
                (now) =>
                  set(
                    ['transitions', one.name, 'from'],
                    (now as string[]).length === 1 ? (now as string[])[0] : now,
                  )
              "
            />
          </td>
          <td>
            <Select
              :value="one.to"
              :options="states"
              :disabled="readOnly"
              size="small"
              style="width: 100%"
              aria-label="To"
              @change="(now) => set(['transitions', one.name, 'to'], now)"
            />
          </td>
          <td>
            <Button
              v-if="!readOnly"
              type="text"
              size="small"
              :aria-label="`Remove ${one.name}`"
              @click="emit('update', removeAt(text, ['lifecycle', 'transitions', one.name]))"
              ><DeleteOutlined
            /></Button>
          </td>
        </tr>
      </tbody>
    </table>
    <Button v-if="!readOnly" size="small" class="add" @click="addTransition"
      ><PlusOutlined /> Add transition</Button
    >
    <section v-for="one in lifecycle.transitions" :key="`before ${one.name}`" class="before">
      <h2>
        Before {{ one.label || one.name }}
        <span class="quiet">{{
          beforeOf(one.name).length ? `${beforeOf(one.name).length} must hold` : 'nothing is asked'
        }}</span>
      </h2>
      <CheckCard
        v-for="{ check, at } in beforeOf(one.name)"
        :key="at"
        :check="check"
        :at="at"
        :text="text"
        :object="object"
        :objects="objects"
        :read-only="readOnly"
        @update="(now) => emit('update', now)"
        @chosen="(now) => emit('chosen', now)"
      />
      <Button v-if="!readOnly" size="small" class="add" @click="emit('update', addCheck(text, one.name))"
        ><PlusOutlined /> Condition before {{ one.name }}</Button
      >
    </section>
  </div>
</template>

<style scoped>
@import './logic-list.css';
.lifecycle {
  display: grid;
  gap: 12px;
}
svg {
  width: 100%;
  font-size: 12.5px;
  fill: var(--text);
}
.state {
  fill: var(--action-soft);
  stroke: var(--action);
}
.first {
  stroke-width: 2.5;
}
.arrow {
  fill: var(--quiet);
  font-size: 11.5px;
}
.line {
  display: flex;
  gap: 8px;
  align-items: center;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 500;
  color: var(--quiet);
}
td {
  padding: 3px 8px 3px 0;
}
td:last-child {
  width: 40px;
}
.before {
  display: grid;
  gap: 8px;
}
.before h2 {
  margin: 6px 0 0;
}
</style>
