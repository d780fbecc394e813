import { VueQueryPlugin } from '@tanstack/vue-query'
import { mount } from '@vue/test-utils'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import UndoRedo from './UndoRedo.vue'

const undo = vi.fn(() => Promise.resolve())
const redo = vi.fn(() => Promise.resolve())

vi.mock('@/composables/journal', () => ({
  useJournal: () => ({
    undo,
    redo,
    canUndo: ref(true),
    canRedo: ref(true),
    nextUndo: ref('order.yaml'),
    nextRedo: ref('order.yaml'),
  }),
}))

function press(target: EventTarget, shiftKey = false) {
  target.dispatchEvent(new KeyboardEvent('keydown', { key: 'z', ctrlKey: true, shiftKey, bubbles: true }))
}

describe('undo and redo', () => {
  const mounted = () => mount(UndoRedo, { attachTo: document.body, global: { plugins: [VueQueryPlugin] } })
  let wrapper: ReturnType<typeof mounted>

  afterEach(() => {
    wrapper.unmount()
    undo.mockClear()
    redo.mockClear()
  })

  it('hear their keys where nothing has the focus', () => {
    wrapper = mounted()
    press(window)
    press(window, true)
    expect(undo).toHaveBeenCalledOnce()
    expect(redo).toHaveBeenCalledOnce()
  })

  it('leave an input its own', () => {
    wrapper = mounted()
    const input = document.createElement('input')
    document.body.append(input)
    press(input)
    expect(undo).not.toHaveBeenCalled()
    press(document.body)
    expect(undo).toHaveBeenCalledOnce()
  })
})
