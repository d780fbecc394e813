<script setup lang="ts">
import '@vue-flow/core/dist/style.css'
import { Handle, MarkerType, Position, useVueFlow, VueFlow, type Edge, type Node } from '@vue-flow/core'
import type ElkApi from 'elkjs'
import { nextTick, shallowRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import type { ObjectView, RouteView } from '@/api/client'
import { height, legs, lines, links, WIDTH } from './layout'

const props = defineProps<{
  objects: ObjectView[]
  found: string[]
  sealed: string[]
  /** A route that is drawn over the references. */
  route?: RouteView
}>()
const router = useRouter()
const nodes = shallowRef<Node[]>([])
const edges = shallowRef<Edge[]>([])
const { fitView } = useVueFlow()
let elk: InstanceType<typeof ElkApi> | undefined

watch(() => [props.objects, props.route], place, { immediate: true })

/** Finds a place for everything: what is referred to stands to the right of what refers to it. */
async function place() {
  if (!elk) {
    const { default: Elk } = await import('elkjs/lib/elk.bundled.js')
    elk = new Elk()
  }
  const all = links(props.objects)
  const graph = await elk.layout({
    id: 'model',
    layoutOptions: {
      'elk.algorithm': 'layered',
      'elk.direction': 'RIGHT',
      'elk.layered.spacing.nodeNodeBetweenLayers': '110',
      'elk.spacing.nodeNode': '26',
      'elk.layered.nodePlacement.strategy': 'NETWORK_SIMPLEX',
    },
    children: props.objects.map((object) => ({ id: object.name, width: WIDTH, height: height(object) })),
    edges: all.map((link) => ({ id: link.id, sources: [link.from], targets: [link.to] })),
  })
  nodes.value = (graph.children ?? []).map((child) => ({
    id: child.id,
    type: 'object',
    position: { x: child.x ?? 0, y: child.y ?? 0 },
    data: props.objects.find((object) => object.name === child.id),
  }))
  const onRoute = props.route !== undefined
  const references = all.map((link) => ({
    id: link.id,
    source: link.from,
    target: link.to,
    label: onRoute ? undefined : `${link.label}  ${link.required ? '1' : '0..1'}`,
    markerEnd: MarkerType.ArrowClosed,
    style: {
      stroke: 'var(--quiet)',
      strokeDasharray: link.part ? '5 4' : undefined,
      opacity: onRoute ? 0.25 : 1,
    },
    labelStyle: { fill: 'var(--quiet)', fontSize: '11px' },
    labelBgStyle: { fill: 'var(--ground)' },
    labelBgPadding: [3, 1] as [number, number],
  }))
  edges.value = [
    ...references,
    ...(props.route ? legs(props.route) : []).map((leg) => ({
      id: leg.id,
      source: leg.from,
      target: leg.to,
      sourceHandle: 'out',
      targetHandle: 'in',
      label: leg.label,
      markerEnd: { type: MarkerType.ArrowClosed, color: 'var(--action)' },
      style: { stroke: 'var(--action)', strokeWidth: 2.5 },
      labelStyle: { fill: 'var(--action)', fontSize: '11px', fontWeight: 600 },
      labelBgStyle: { fill: 'var(--ground)' },
      labelBgPadding: [3, 1] as [number, number],
      zIndex: 10,
    })),
  ]
  await nextTick()
  setTimeout(() => void fitView({ padding: 0.06, maxZoom: 1.1 }), 30)
}
</script>

<template>
  <div class="diagram card">
    <VueFlow
      :nodes="nodes"
      :edges="edges"
      :min-zoom="0.2"
      :nodes-connectable="false"
      :elements-selectable="false"
    >
      <template #node-object="{ data }">
        <div
          :class="['box', { sealed: sealed.includes(data.packageName), dim: !found.includes(data.name) }]"
          :style="{ width: `${WIDTH}px`, height: `${height(data)}px` }"
          role="link"
          tabindex="0"
          @click="router.push(`/model/${data.name}`)"
          @keydown.enter="router.push(`/model/${data.name}`)"
        >
          <Handle type="target" :position="Position.Left" class="handle" />
          <div class="head">
            <span>{{ data.name }}</span><small>{{ data.packageName }}</small>
          </div>
          <div v-for="line in lines(data)" :key="line.text" :class="['line', line.kind]">{{ line.text }}</div>
          <Handle type="source" :position="Position.Right" class="handle" />
          <Handle id="out" type="source" :position="Position.Left" class="handle" />
          <Handle id="in" type="target" :position="Position.Right" class="handle" />
        </div>
      </template>
    </VueFlow>
    <p class="legend quiet">
      An arrow is a reference: dashed from line items, 1 when it is required. Sand marks delivered packages.
      Click an object to open it.
      <template v-if="route">Thick arrows are the route: what travels goes their way.</template>
    </p>
  </div>
</template>

<style scoped>
.diagram {
  position: relative;
  padding: 0;
  overflow: hidden;
  background: var(--ground);
}
.box {
  background: var(--surface);
  border: 1px solid var(--line);
  border-radius: 8px;
  overflow: hidden;
  cursor: pointer;
  font-size: 12.5px;
}
.box:hover {
  border-color: var(--action);
}
.head {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  height: 30px;
  line-height: 30px;
  padding: 0 10px;
  margin-bottom: 4px;
  font-weight: 600;
  background: var(--action-soft);
}
.head small {
  font-weight: 400;
  color: var(--quiet);
}
.sealed .head {
  background: var(--sand-soft);
}
.line {
  height: 19px;
  padding: 0 10px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.key {
  font-weight: 600;
}
.part,
.more {
  color: var(--quiet);
}
.dim {
  opacity: 0.25;
}
.handle {
  opacity: 0;
}
.legend {
  position: absolute;
  left: 12px;
  bottom: 8px;
  margin: 0;
  font-size: 12px;
}
</style>
