import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import TypedInput from './TypedInput.vue'

describe('an input that is taken when it is left', () => {
  it('keeps what is typed when the page around it is drawn anew', async () => {
    const taken: string[] = []
    const onChange = (event: Event) => taken.push((event.target as HTMLInputElement).value)
    const input = mount(TypedInput, {
      props: { value: 'newField', onChange },
      attrs: { 'aria-label': 'Name' },
    })
    const element = input.element as HTMLInputElement
    element.value = 'tot'
    await input.trigger('input')
    await input.setProps({ value: 'newField' })
    input.vm.$forceUpdate()
    await input.vm.$nextTick()
    expect(element.value).toBe('tot')
    expect(element.getAttribute('aria-label')).toBe('Name')

    element.value = 'total'
    await input.trigger('input')
    await input.trigger('change')
    expect(taken).toEqual(['total'])
    await input.setProps({ value: 'total' })
    expect(element.value).toBe('total')
  })

  it('shows what it is given when nothing is typed', async () => {
    const input = mount(TypedInput, { props: { value: 'a' } })
    await input.setProps({ value: 'b' })
    expect((input.element as HTMLInputElement).value).toBe('b')
  })
})
