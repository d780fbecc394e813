<script setup lang="ts">
import { DeleteOutlined, PlusOutlined } from '@ant-design/icons-vue'
import { Alert, Button, CheckboxGroup, Input, Modal, Select } from 'ant-design-vue'
import { ref } from 'vue'
import { api, unwrap, type RoleView } from '@/api/client'
import { useModel } from '@/composables/model'
import ConditionInput from '@/conditions/ConditionInput.vue'
import GrantRows from './GrantRows.vue'
import { ANY, grantOf, textOf, type Grant } from './grants'

/** A role: what the people who hold it may do with records, services and the console. */
const props = defineProps<{ role: RoleView | null; taken: string[] }>()
const emit = defineEmits<{ saved: []; left: [] }>()
const { objects } = useModel('LIVE')

type Duty = RoleView['duties'][number]
type Action = RoleView['objects'][number]['actions'][number]
interface ObjectRow {
  object: string
  actions: Action[]
  where: string
  hidden: string[]
  readOnly: string[]
}

const DUTIES: { value: Duty; label: string }[] = [
  { value: 'RECORDS', label: 'see and enter every record' },
  { value: 'DESIGN', label: 'design' },
  { value: 'RELEASE', label: 'release' },
  { value: 'ACCESS', label: 'manage access' },
  { value: 'AUDIT', label: 'audit' },
  { value: 'OPERATE', label: 'operate' },
]
const ACTIONS: { value: Action; label: string }[] = [
  { value: 'VIEW', label: 'view' },
  { value: 'CREATE', label: 'create' },
  { value: 'EDIT', label: 'edit' },
  { value: 'RETIRE', label: 'retire' },
]

const name = ref(props.role?.name ?? '')
const label = ref(props.role?.label ?? '')
const describe = ref(props.role?.describe ?? '')
const duties = ref<Duty[]>([...(props.role?.duties ?? [])])
const rows = ref<ObjectRow[]>(
  (props.role?.objects ?? []).map((one) => ({
    object: one.object,
    actions: [...one.actions],
    where: one.where ?? '',
    hidden: [...(one.hidden ?? [])],
    readOnly: [...(one.readOnly ?? [])],
  })),
)
const grants = ref<Grant[]>((props.role?.services ?? []).map(grantOf))
const problem = ref('')
const busy = ref(false)

const names = (object: string) => {
  const found = objects.value.find((one) => one.name === object)
  return [...(found?.fields ?? []), ...(found?.parts ?? [])].map((one) => ({
    value: one.name,
    label: one.label,
  }))
}

function add() {
  rows.value.push({ object: ANY, actions: ['VIEW'], where: '', hidden: [], readOnly: [] })
}

async function save() {
  if (!props.role && props.taken.includes(name.value)) {
    problem.value = `There is a role ${name.value} already; change that one, or choose another name.`
    return
  }
  if (!/^[a-z0-9-]{2,60}$/.test(name.value)) {
    problem.value = 'A role is called with small letters, digits and hyphens, such as dock-master.'
    return
  }
  busy.value = true
  problem.value = ''
  try {
    await unwrap(
      api.PUT('/manage/v1/roles/{name}', {
        params: { path: { name: name.value } },
        body: {
          label: label.value || undefined,
          describe: describe.value || undefined,
          duties: duties.value,
          services: grants.value.map(textOf),
          objects: rows.value.map((row) => ({ ...row, where: row.where.trim() || undefined })),
        },
      }),
    )
    emit('saved')
  } catch (error) {
    problem.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <Modal
    open
    :title="role ? role.label : 'New role'"
    :ok-text="role ? 'Save' : 'Make it'"
    :ok-button-props="{ loading: busy, disabled: !name }"
    :width="760"
    @ok="save"
    @cancel="emit('left')"
  >
    <div class="form">
      <div class="two">
        <label>
          Name
          <Input v-model:value="name" :disabled="!!role" placeholder="dock-master" aria-label="Role name" />
        </label>
        <label>
          Label
          <Input v-model:value="label" placeholder="What people read" aria-label="Label" />
        </label>
      </div>
      <label>
        Description
        <Input v-model:value="describe" placeholder="Who has it" aria-label="Description" />
      </label>
      <div>
        <div class="head">In the console they</div>
        <CheckboxGroup v-model:value="duties" :options="DUTIES" />
      </div>
      <div>
        <div class="head">With records they may</div>
        <p v-if="!rows.length" class="quiet">Nothing yet.</p>
        <div v-for="(row, at) in rows" :key="at" class="grant" data-test="object-grant">
          <div class="row">
            <Select
              v-model:value="row.object"
              show-search
              :options="[
                { value: ANY, label: 'every object' },
                ...objects.map((one) => ({ value: one.name, label: one.label })),
              ]"
              style="width: 190px"
              aria-label="Object"
              @change="((row.hidden = []), (row.readOnly = []))"
            />
            <CheckboxGroup v-model:value="row.actions" :options="ACTIONS" />
            <div class="spacer"></div>
            <Button aria-label="Take away" @click="rows.splice(at, 1)"><DeleteOutlined /></Button>
          </div>
          <ConditionInput
            :text="row.where"
            role="CONDITION"
            :objects="objects"
            :object="row.object === ANY ? undefined : row.object"
            label="Condition"
            placeholder="Every record; a condition keeps it to some."
            unchecked
            @update="(now) => (row.where = now)"
          />
          <div v-if="row.object !== ANY" class="two">
            <Select
              v-model:value="row.hidden"
              mode="multiple"
              :options="names(row.object)"
              placeholder="sees every field, but not …"
              aria-label="Hidden"
            />
            <Select
              v-model:value="row.readOnly"
              mode="multiple"
              :options="names(row.object)"
              placeholder="changes every field, but not …"
              aria-label="Read-only"
            />
          </div>
        </div>
        <Button @click="add"><PlusOutlined /> Object</Button>
      </div>
      <div>
        <div class="head">Of services they may call</div>
        <GrantRows v-model="grants" />
      </div>
      <Alert v-if="problem" type="error" :message="problem" />
    </div>
  </Modal>
</template>

<style scoped>
.form {
  display: grid;
  gap: 12px;
}
label {
  display: grid;
  gap: 4px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.head {
  margin-bottom: 6px;
}
p {
  margin: 0 0 6px;
}
.grant {
  display: grid;
  gap: 6px;
  padding: 8px 10px;
  margin-bottom: 8px;
  background: var(--sunken);
  border-radius: 8px;
}
</style>
