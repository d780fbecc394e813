<script setup lang="ts">
import { Alert, AutoComplete, Input, Modal } from 'ant-design-vue'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { keepFile } from '@/api/draft'
import { newPackageText } from '@/composables/packages'

/** Asks what a package needs and makes it. */
const props = defineProps<{ taken: string[] }>()
const emit = defineEmits<{ left: [] }>()

const queries = useQueryClient()
const label = ref('')
const typedName = ref<string>()
const languages = ref('en')
const currency = ref('')
const zone = ref(Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC')
const problem = ref('')
const busy = ref(false)

/** The name follows the label until somebody types another. */
const name = computed({
  get: () =>
    typedName.value ??
    label.value
      .toLowerCase()
      .normalize('NFD')
      .replace(/\p{M}/gu, '')
      .replace(/ß/g, 'ss')
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^[-0-9]+|-+$/g, ''),
  set: (now: string) => (typedName.value = now),
})
const zones: string[] =
  typeof Intl.supportedValuesOf === 'function' ? ['UTC', ...Intl.supportedValuesOf('timeZone')] : ['UTC']
const offered = computed(() =>
  zones
    .filter((one) => one.toLowerCase().includes(zone.value.toLowerCase()))
    .slice(0, 20)
    .map((value) => ({ value })),
)

function wrong(): string {
  if (!/^[a-z][a-z0-9]*(-[a-z0-9]+)*$/.test(name.value))
    return 'A package is named in small letters, digits and hyphens, and begins with a letter: boat-yard.'
  if (props.taken.includes(name.value)) return `There is a package ${name.value} already.`
  if (!/^[a-z]{2}([\s,]+[a-z]{2})*$/.test(languages.value.trim()))
    return 'Languages are given by their two letters, the main one first: en, de.'
  if (currency.value.trim() && !/^[A-Z]{3}$/.test(currency.value.trim()))
    return 'A currency has three capital letters (ISO 4217), or is left empty.'
  return ''
}

async function make() {
  problem.value = wrong()
  if (problem.value) return
  busy.value = true
  try {
    await keepFile(
      `${name.value}/package.yaml`,
      newPackageText({
        name: name.value,
        label: label.value,
        languages: languages.value,
        currency: currency.value,
        zone: zone.value,
      }),
    )
    await queries.invalidateQueries()
    emit('left')
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
    title="New package"
    ok-text="Create"
    :ok-button-props="{ loading: busy, disabled: !name }"
    @ok="make"
    @cancel="emit('left')"
  >
    <form class="form" @submit.prevent="make">
      <label class="wide">
        What people call it
        <Input v-model:value="label" autofocus placeholder="Boat yard" aria-label="Label" />
      </label>
      <label class="wide">
        Name
        <Input v-model:value="name" class="mono" aria-label="Name" />
        <span class="quiet">Small letters, digits and hyphens; the folder is called so, too.</span>
      </label>
      <label>
        Languages
        <Input v-model:value="languages" aria-label="Languages" />
        <span class="quiet">The main one first: en, de.</span>
      </label>
      <label>
        Currency
        <Input v-model:value="currency" placeholder="EUR when empty" aria-label="Currency" />
        <span class="quiet">Of amounts that name none.</span>
      </label>
      <label class="wide">
        Time zone
        <AutoComplete v-model:value="zone" :options="offered" aria-label="Time zone" />
        <span class="quiet">In which today is meant.</span>
      </label>
      <Alert v-if="problem" type="error" show-icon :message="problem" class="wide" />
      <button type="submit" hidden></button>
    </form>
  </Modal>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
label {
  display: grid;
  gap: 4px;
  align-content: start;
}
.wide {
  grid-column: 1 / -1;
}
</style>
