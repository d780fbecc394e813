import { mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { readChecks } from '@/editor/logicFile'
import CheckCard from './CheckCard.vue'

const editor = vi.hoisted(() => (name: string) => ({
  default: {
    name,
    props: ['text', 'role', 'object', 'objects', 'label', 'readOnly'],
    emits: ['update', 'touched'],
    template: `<div :data-editor="'${name}'">{{ text }}</div>`,
  },
}))
vi.mock('@/editor/LogicEditor.vue', () => editor('LogicEditor'))
vi.mock('@/conditions/ConditionInput.vue', () => editor('ConditionInput'))
const JOB = `object: Job
key: code
lifecycle:
  initial: Asked
  states: [Asked, Done]
  transitions:
    finish: { from: Asked, to: Done }
fields:
  code: { type: text }
  size: { type: integer }
checks:
  - name: small
    that: size < 10
    say: Too large.
    at: size
  - { name: agreed, that: code != null, say: No code., before: [finish] }
`

describe('a check', () => {
  const card = (at: number, more: object = {}) => {
    const checks = readChecks(JOB)
    return mount(CheckCard, {
      props: { check: checks[at], at, text: JOB, object: 'Job', objects: [], readOnly: false, ...more },
    })
  }

  it('shows what must be true and what is said', () => {
    const shown = card(0)
    expect(shown.find('[data-editor=ConditionInput]').text()).toBe('size < 10')
    expect(shown.find('[data-editor=LogicEditor]').text()).toBe('Too large.')
    expect(shown.find<HTMLInputElement>('[aria-label="Name of the check"]').element.value).toBe('small')
  })

  it('is changed in its own place of the file', async () => {
    const shown = card(1)
    await shown.findComponent({ name: 'ConditionInput' }).vm.$emit('update', 'code != ""')
    const text = shown.emitted('update')?.[0][0] as string
    expect(readChecks(text).map((one) => one.that)).toEqual(['size < 10', 'code != ""'])
  })

  it('tells which of its texts is looked at', async () => {
    const shown = card(0)
    await shown.findComponent({ name: 'LogicEditor' }).vm.$emit('touched', 'Too large by {size}.')
    expect(shown.emitted('chosen')).toEqual([[{ role: 'SAY', object: 'Job', text: 'Too large by {size}.' }]])
  })

  it('only warns, and stops again', async () => {
    const shown = card(0)
    await shown.find('input[type=checkbox]').setValue(true)
    const warning = shown.emitted('update')?.[0][0] as string
    expect(readChecks(warning)[0].warning).toBe(true)
    const again = card(0, { check: readChecks(warning)[0], text: warning })
    await again.find('input[type=checkbox]').setValue(false)
    expect(readChecks(again.emitted('update')?.[0][0] as string)[0].warning).toBe(false)
  })

  it('goes, and leaves the others', async () => {
    const shown = card(0)
    await shown.find('[aria-label="Remove small"]').trigger('click')
    expect(readChecks(shown.emitted('update')?.[0][0] as string).map((one) => one.name)).toEqual(['agreed'])
  })

  it('before a transition is looked at nowhere else', () => {
    expect(card(0).find('[aria-label="When it is looked at"]').exists()).toBe(true)
    expect(card(1).find('[aria-label="When it is looked at"]').exists()).toBe(false)
  })

  it('of a delivered package is only looked at', () => {
    const shown = card(0, { readOnly: true })
    expect(shown.find('[aria-label="Remove small"]').exists()).toBe(false)
    expect(shown.findComponent({ name: 'LogicEditor' }).props('readOnly')).toBe(true)
  })
})
