<script setup lang="ts">
import { yaml } from '@codemirror/lang-yaml'
import { HighlightStyle, syntaxHighlighting } from '@codemirror/language'
import { lintGutter, setDiagnostics, type Diagnostic as Mark } from '@codemirror/lint'
import { EditorState } from '@codemirror/state'
import { EditorView } from '@codemirror/view'
import { tags } from '@lezer/highlight'
import { basicSetup } from 'codemirror'
import { useQuery } from '@tanstack/vue-query'
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import type { Diagnostic } from '@/api/client'
import { call } from '@/api/http'
import { offsetOf } from './place'
import { schemaCompletion } from './schemaCompletion'
import type { Schema } from './schemaPlace'

const props = defineProps<{
  text: string
  diagnostics: Diagnostic[]
  readOnly?: boolean
  /** The kind of definition file, for completion. */
  kind?: string
}>()
const emit = defineEmits<{ update: [text: string] }>()
const schema = useQuery({
  queryKey: computed(() => ['schema', props.kind]),
  queryFn: () => call<Schema>('GET', `/manage/v1/schemas/${props.kind}.json`),
  enabled: computed(() => !!props.kind && props.kind !== 'other' && !props.readOnly),
  staleTime: Infinity,
})
const host = ref<HTMLElement>()
let view: EditorView | undefined

const colours = HighlightStyle.define([
  { tag: [tags.propertyName, tags.definition(tags.propertyName)], color: 'var(--action)' },
  { tag: [tags.string, tags.content], color: 'var(--text)' },
  { tag: [tags.bool, tags.number, tags.null, tags.keyword], color: 'var(--sand)' },
  { tag: tags.comment, color: 'var(--quiet)', fontStyle: 'italic' },
])
const look = EditorView.theme({
  '&': { height: '100%', fontSize: '12.5px', backgroundColor: 'var(--surface)', color: 'var(--text)' },
  '.cm-scroller': { fontFamily: "ui-monospace, 'DejaVu Sans Mono', monospace" },
  '.cm-gutters': { backgroundColor: 'var(--sunken)', color: 'var(--quiet)', border: '0' },
  '.cm-activeLine, .cm-activeLineGutter': { backgroundColor: 'var(--action-soft)' },
  '.cm-content': { caretColor: 'var(--text)' },
  '.cm-tooltip': { backgroundColor: 'var(--surface)', border: '1px solid var(--line)' },
})

onMounted(() => {
  view = new EditorView({
    parent: host.value!,
    state: EditorState.create({
      doc: props.text,
      extensions: [
        basicSetup,
        yaml(),
        lintGutter(),
        schemaCompletion(() => schema.data.value),
        syntaxHighlighting(colours),
        look,
        EditorState.readOnly.of(props.readOnly ?? false),
        EditorView.contentAttributes.of({ 'aria-label': 'Definition file', tabindex: '0' }),
        EditorView.updateListener.of((change) => {
          if (change.docChanged && change.state.doc.toString() !== props.text)
            emit('update', change.state.doc.toString())
        }),
      ],
    }),
  })
  mark()
})
onBeforeUnmount(() => view?.destroy())

watch(
  () => props.text,
  (text) => {
    if (view && view.state.doc.toString() !== text) {
      view.dispatch({ changes: { from: 0, to: view.state.doc.length, insert: text } })
    }
  },
)
watch(() => props.diagnostics, mark)

/** Shows a line, and puts the cursor there. */
function reveal(line: number, column = 1) {
  if (!view) return
  const anchor = offsetOf(view.state.doc.toString(), line, column)
  view.dispatch({ selection: { anchor }, effects: EditorView.scrollIntoView(anchor, { y: 'center' }) })
  view.focus()
}
defineExpose({ reveal })

/** Underlines what is wrong; a suggestion becomes a click. */
function mark() {
  if (!view) return
  const text = view.state.doc.toString()
  const marks: Mark[] = props.diagnostics.map((one) => {
    const from = offsetOf(text, one.line, one.column)
    const to = Math.max(offsetOf(text, one.endLine, one.endColumn), Math.min(from + 1, text.length))
    return {
      from,
      to,
      severity: one.severity === 'ERROR' ? 'error' : 'warning',
      message: one.message,
      actions: one.suggestion
        ? [
            {
              name: `Use ${one.suggestion}`,
              apply: (at, start, end) =>
                at.dispatch({ changes: { from: start, to: end, insert: one.suggestion! } }),
            },
          ]
        : [],
    }
  })
  view.dispatch(setDiagnostics(view.state, marks))
}
</script>

<template>
  <div ref="host" class="editor"></div>
</template>

<style scoped>
.editor {
  height: 100%;
  overflow: hidden;
}
</style>
