<script setup lang="ts">
import { at } from '@/api/place'
import { Tag, Tooltip } from 'ant-design-vue'
import type { Schemas } from '@/api/client'
import { moment } from '@/composables/format'

/** Which version of a package is live, from where it came, and whether files were altered since. */
const props = defineProps<{ of: Schemas['LivePackage'] }>()

function from(): string {
  const { origin } = props.of
  if (!origin) return ''
  const place =
    origin.release === undefined || origin.release === null
      ? 'a folder'
      : `${origin.instance || 'another instance'}, release ${origin.release}`
  const signed = origin.signer ? `, signed with ${origin.signer}` : ', not signed'
  return `From ${place}${signed}; unpacked ${moment(origin.at)} by ${origin.by}.`
}
</script>

<template>
  <div class="quiet origin" data-test="origin">
    <span>Live: {{ of.version }}, content {{ of.content }}.</span>
    <span v-if="of.origin">{{ from() }}</span>
    <Tooltip v-if="of.altered.length" :title="of.altered.join(', ')">
      <Tag color="red">{{ of.altered.length }} altered since</Tag>
    </Tooltip>
    <a :href="at(`/manage/v1/packages/${of.name}/archive`)" download :aria-label="`Pack it: ${of.label}`"
      >Pack it</a
    >
  </div>
</template>

<style scoped>
.origin {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  align-items: center;
  margin: 2px 0 6px;
}
</style>
