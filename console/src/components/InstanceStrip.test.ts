import { afterEach, describe, expect, it, vi } from 'vitest'
import { show, text } from '@/testing/service'
import InstanceStrip from './InstanceStrip.vue'

const instance = {
  name: 'production',
  colour: '#b3261e',
  packagesOnly: true,
  rehearsal: undefined as object | undefined,
}
vi.mock('@/composables/session', () => ({ useSession: () => ({ me: { value: { instance } } }) }))
const strip = () => document.querySelector<HTMLElement>('[data-test=instance]')

afterEach(() => {
  document.body.innerHTML = ''
  Object.assign(instance, { name: 'production', colour: '#b3261e', packagesOnly: true, rehearsal: undefined })
})

describe('the name of an instance', () => {
  it('stands over the page in its colour, to be read on it', async () => {
    await show(InstanceStrip)
    expect(text()).toContain('production')
    expect(text()).toContain('takes packages only')
    expect(strip()?.style.background).toBe('#b3261e')
    expect(strip()?.style.color).toBe('#fff')
  })

  it('is dark on a light colour', async () => {
    instance.colour = '#ffe08a'
    await show(InstanceStrip)
    expect(strip()?.style.color).toBe('#000')
  })

  it('says that this is a rehearsal, and the way back', async () => {
    instance.rehearsal = { made: '2026-05-01T10:42:00Z', changes: 3, by: 'ann' }
    await show(InstanceStrip)
    expect(text()).toMatch(/Rehearsal\s*made .+ 3 changes of ann/)
    expect(document.querySelector('[data-test=rehearsing] a')?.getAttribute('href')).toBe('/releases')
  })

  it('needs no colour, and is not there without both', async () => {
    Object.assign(instance, { colour: '', packagesOnly: false })
    await show(InstanceStrip)
    expect(strip()?.textContent).toBe('production')
    document.body.innerHTML = ''
    instance.name = ''
    await show(InstanceStrip)
    expect(strip()).toBeNull()
  })
})
