<script setup lang="ts">
import { DeleteOutlined, PlusOutlined } from '@ant-design/icons-vue'
import { Button, Select } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, unwrap } from '@/api/client'
import { useModel } from '@/composables/model'
import ConditionInput from '@/conditions/ConditionInput.vue'
import { choices, grantOf, type Grant } from './grants'

/** Operations of services that may be called, each with a condition on the records it reaches. */
const grants = defineModel<Grant[]>({ required: true })

const services = useQuery({
  queryKey: ['services'],
  queryFn: () => unwrap(api.GET('/manage/v1/model/services')),
})
const options = (names: string[]) => names.map((one) => ({ value: one, label: one === '*' ? 'all' : one }))
const rows = computed(() => grants.value.map((grant) => choices(services.data.value ?? [], grant)))

const { objects } = useModel()
const objectOf = (grant: Grant) =>
  services.data.value
    ?.find((one) => one.name === grant.service)
    ?.resources.find((one) => one.name === grant.resource)?.object

function add() {
  grants.value = [...grants.value, grantOf(services.data.value?.[0]?.name ?? '')]
}
</script>

<template>
  <div>
    <p v-if="!grants.length" class="quiet">Nothing yet.</p>
    <div v-for="(grant, at) in grants" :key="at" class="grant">
      <Select v-model:value="grant.service" :options="options(rows[at].services)" aria-label="Service" />
      <Select v-model:value="grant.resource" :options="options(rows[at].resources)" aria-label="Resource" />
      <Select
        v-model:value="grant.operation"
        :options="options(rows[at].operations)"
        aria-label="Operation"
      />
      <Button aria-label="Take away" @click="grants = grants.filter((_, place) => place !== at)"
        ><DeleteOutlined
      /></Button>
      <div class="where">
        <ConditionInput
          :text="grant.where ?? ''"
          role="CONDITION"
          :objects="objects"
          :object="objectOf(grant)"
          label="Condition"
          placeholder="Every record; a condition keeps it to some."
          unchecked
          @update="(now) => (grant.where = now)"
        />
      </div>
    </div>
    <Button @click="add"><PlusOutlined /> Grant</Button>
  </div>
</template>

<style scoped>
p {
  margin: 0 0 6px;
}
.grant {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr auto;
  gap: 6px;
  margin-bottom: 6px;
}
.where {
  grid-column: 1 / -2;
}
</style>
