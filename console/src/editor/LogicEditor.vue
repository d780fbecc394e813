<script setup lang="ts">
import { autocompletion, type CompletionContext, type CompletionResult } from '@codemirror/autocomplete'
import { HighlightStyle, syntaxHighlighting } from '@codemirror/language'
import { linter, type Diagnostic } from '@codemirror/lint'
import { EditorState } from '@codemirror/state'
import { EditorView, hoverTooltip, placeholder as hint } from '@codemirror/view'
import { tags } from '@lezer/highlight'
import { Button, Popover } from 'ant-design-vue'
import { minimalSetup } from 'codemirror'
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { checkLogic, completeLogic, hoverLogic, type LogicText, type Role } from '@/api/logic'
import InsertStep from './InsertStep.vue'
import LogicBrowser from './LogicBrowser.vue'
import { feel, message, fromPoints, toPoints } from './feel'

const props = defineProps<{
  text: string
  role: Role
  object?: string
  part?: string
  field?: string
  label: string
  placeholder?: string
  readOnly?: boolean
  /** Written by somebody who does not design: without help and findings. */
  unchecked?: boolean
}>()
const emit = defineEmits<{ update: [text: string]; touched: [text: string] }>()
const host = ref<HTMLElement>()
let view: EditorView | undefined

const asked = (text: string): LogicText => ({
  role: props.role,
  object: props.object,
  part: props.part,
  field: props.field,
  text,
})

const colours = HighlightStyle.define([
  { tag: tags.keyword, color: 'var(--action)', fontWeight: '600' },
  { tag: [tags.string, tags.number], color: 'var(--sand)' },
  { tag: tags.comment, color: 'var(--quiet)', fontStyle: 'italic' },
])
const look = EditorView.theme({
  '&': { fontSize: '12.5px', backgroundColor: 'var(--surface)', color: 'var(--text)' },
  '&.cm-focused': { outline: '2px solid var(--action)', outlineOffset: '-1px' },
  '.cm-scroller': { fontFamily: "ui-monospace, 'DejaVu Sans Mono', monospace", lineHeight: '1.5' },
  '.cm-content': { caretColor: 'var(--text)', padding: '5px 0' },
  '.cm-tooltip': { backgroundColor: 'var(--surface)', border: '1px solid var(--line)', color: 'var(--text)' },
  '.cm-tooltip.cm-tooltip-autocomplete > ul > li[aria-selected]': {
    backgroundColor: 'var(--action)',
    color: 'var(--surface)',
  },
  '.cm-completionDetail': { color: 'inherit', opacity: '0.75', fontStyle: 'normal', marginLeft: '1em' },
  '.cm-placeholder': { color: 'var(--quiet)' },
})

async function findings(of: EditorView): Promise<Diagnostic[]> {
  const text = of.state.doc.toString()
  if (!text.trim()) return []
  const answer = await checkLogic(asked(text))
  if (text !== of.state.doc.toString()) return []
  return answer.findings.map((one) => {
    const from = Math.min(fromPoints(text, one.start), Math.max(0, text.length - 1))
    return {
      from,
      to: Math.min(text.length, Math.max(fromPoints(text, one.end), from + 1)),
      severity: one.warning ? 'warning' : 'error',
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
}

const ICONS = { field: 'property', function: 'function', object: 'class', name: 'variable', code: 'enum' }

async function completions(context: CompletionContext): Promise<CompletionResult | null> {
  const before = context.matchBefore(/[\p{L}\p{N}_]*$|\.$/u)
  if (
    !before ||
    (before.from === before.to && !context.explicit && !/[.=(,]\s*$/.test(lineBefore(context)))
  ) {
    return null
  }
  const text = context.state.doc.toString()
  const answer = await completeLogic(asked(text), toPoints(text, context.pos))
  return {
    from: fromPoints(text, answer.from),
    options: answer.items.map((item, at) => ({
      label: item.label,
      apply: item.insert,
      detail: item.kind === 'function' ? '' : item.detail,
      type: ICONS[item.kind as keyof typeof ICONS] ?? 'keyword',
      info: item.describe || item.detail || undefined,
      boost: -Math.min(99, at),
    })),
    validFor: /^[\p{L}\p{N}_]*$/u,
  }
}
const lineBefore = (context: CompletionContext) => {
  const line = context.state.doc.lineAt(context.pos)
  return line.text.slice(0, context.pos - line.from)
}

const hovers = hoverTooltip(async (of, at) => {
  const text = of.state.doc.toString()
  const found = await hoverLogic(asked(text), toPoints(text, at))
  if (!found.title) return null
  return {
    pos: at,
    create() {
      const dom = document.createElement('div')
      dom.className = 'logic-hover'
      for (const [name, part] of Object.entries(found)) {
        if (!part) continue
        const line = document.createElement('div')
        line.className = name
        line.textContent = part
        dom.append(line)
      }
      return { dom }
    },
  }
})

onMounted(() => {
  view = new EditorView({
    parent: host.value!,
    state: EditorState.create({
      doc: props.text,
      extensions: [
        minimalSetup,
        props.role === 'SAY' ? message : feel,
        syntaxHighlighting(colours),
        look,
        EditorView.lineWrapping,
        hint(props.placeholder ?? ''),
        props.unchecked
          ? []
          : [
              linter(findings, { delay: 250 }),
              autocompletion({ override: [completions], activateOnTyping: true }),
              hovers,
            ],
        EditorState.readOnly.of(props.readOnly ?? false),
        EditorView.contentAttributes.of({ 'aria-label': props.label }),
        EditorView.domEventHandlers({ focus: (_, of) => emit('touched', of.state.doc.toString()) }),
        EditorView.updateListener.of((change) => {
          const now = change.state.doc.toString()
          if (change.docChanged && now !== props.text) {
            emit('update', now)
            emit('touched', now)
          }
        }),
      ],
    }),
  })
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

/** Puts text where the cursor is. */
function insert(text: string) {
  view?.dispatch(view.state.replaceSelection(text))
  view?.focus()
}
/** Steps stand on lines of their own. */
function insertStep(text: string) {
  stepping.value = false
  const state = view?.state
  if (!state) return
  const line = state.doc.lineAt(state.selection.main.head)
  const isEmpty = !line.text.trim()
  view!.dispatch({
    changes: isEmpty
      ? { from: line.from, to: line.to, insert: text }
      : { from: line.to, insert: `\n${text}` },
  })
  view!.focus()
}
const browsing = ref(false)
const stepping = ref(false)
const STEPS_IN: Role[] = ['THEN', 'BODY', 'HANDLER_THEN', 'SCHEDULE_THEN']
</script>

<template>
  <div>
    <div ref="host" :class="['logic', { fixed: readOnly }]"></div>
    <div v-if="!readOnly && !unchecked" class="helps">
      <Popover v-model:open="browsing" trigger="click" placement="bottomLeft" destroy-tooltip-on-hide>
        <Button size="small" type="text">Fields and functions</Button>
        <template #content>
          <LogicBrowser :object="object" :part="part" @insert="insert" />
        </template>
      </Popover>
      <Button v-if="STEPS_IN.includes(role)" size="small" type="text" @click="stepping = true"
        >Insert a step</Button
      >
    </div>
    <InsertStep v-if="stepping" :object="object" @insert="insertStep" @left="stepping = false" />
  </div>
</template>

<style scoped>
.logic {
  border: 1px solid var(--line);
  border-radius: 6px;
  overflow: hidden;
}
.fixed {
  opacity: 0.8;
}
.helps {
  display: flex;
  gap: 4px;
}
.helps :deep(.ant-btn) {
  color: var(--quiet);
  font-size: 12px;
  padding: 0 4px;
}
</style>

<style>
.logic-hover {
  padding: 6px 10px;
  max-width: 420px;
  font-size: 12.5px;
}
.logic-hover .title {
  font-family: ui-monospace, 'DejaVu Sans Mono', monospace;
  white-space: pre-line;
}
.logic-hover .example {
  color: var(--quiet);
  font-family: ui-monospace, 'DejaVu Sans Mono', monospace;
}
</style>
