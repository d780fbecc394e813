import { afterEach, describe, expect, it } from 'vitest'
import { show, text } from '@/testing/service'
import PackageOrigin from './PackageOrigin.vue'

const YARD = {
  name: 'yard',
  version: '1.2',
  label: 'Yard',
  sealed: false,
  depends: [],
  content: '3f2a',
  files: 2,
  altered: [] as string[],
}
const origin = (more: object) => ({
  ...YARD,
  origin: {
    instance: 'development',
    release: 7,
    signer: 'ab12',
    at: '2026-05-01T10:00:00Z',
    by: 'ann',
    ...more,
  },
})

afterEach(() => (document.body.innerHTML = ''))

describe('where a package is from', () => {
  it('is here when nothing else is known', async () => {
    await show(PackageOrigin, { of: YARD })
    expect(text()).toContain('Live: 1.2, content 3f2a.')
    expect(text()).not.toContain('From')
    expect(document.querySelector('a')?.getAttribute('href')).toBe('/manage/v1/packages/yard/archive')
  })

  it('is the instance and the release it was packed in', async () => {
    await show(PackageOrigin, { of: origin({}) })
    expect(text()).toMatch(/From development, release 7, signed with ab12; unpacked .* by ann\./)
    expect(text()).not.toContain('altered')
  })

  it('may be a folder, or an instance without a name', async () => {
    await show(PackageOrigin, { of: origin({ release: undefined, signer: undefined }) })
    expect(text()).toContain('From a folder, not signed')
    document.body.innerHTML = ''
    await show(PackageOrigin, { of: origin({ instance: '' }) })
    expect(text()).toContain('From another instance, release 7')
  })

  it('tells how many files were altered since', async () => {
    await show(PackageOrigin, { of: { ...origin({}), altered: ['yard/package.yaml'] } })
    expect(text()).toContain('1 altered since')
  })
})
