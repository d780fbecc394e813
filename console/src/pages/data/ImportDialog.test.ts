import { Select } from 'ant-design-vue'
import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { sendBatch } from '@/api/importing'
import { button, press, show, soon, text } from '@/testing/service'
import { download } from './dataFile'
import ImportDialog from './ImportDialog.vue'

vi.mock('@/api/importing', () => ({
  sendBatch: vi.fn(),
  reasonOf: (result: { reason: string }) => result.reason,
}))
vi.mock('./dataFile', async (original) => ({
  ...(await original<typeof import('./dataFile')>()),
  download: vi.fn(),
}))

const field = (name: string, type = 'text') => ({ name, label: name, type, languages: [], choices: [] })
const JOB = {
  name: 'Job',
  plural: 'Jobs',
  key: ['code'],
  fields: [field('code'), field('size', 'integer')],
  parts: [],
}
const created = { status: 'created' }
const refused = (reason: string) => ({ status: 'refused', reason })

const choose = async (name: string, content: string) => {
  const input = document.querySelector<HTMLInputElement>('input[type=file]')!
  Object.defineProperty(input, 'files', { value: [new File([content], name)], configurable: true })
  input.dispatchEvent(new Event('change'))
  await soon(async () => {
    await flushPromises()
    expect(document.querySelector('[data-test=looked], .ant-alert-error')).not.toBeNull()
  })
}

beforeEach(() => vi.mocked(sendBatch).mockReset())
afterEach(() => (document.body.innerHTML = ''))

describe('bringing records in', () => {
  it('looks at the first before anything is written', async () => {
    vi.mocked(sendBatch).mockResolvedValue([
      created,
      { status: 'changed' },
      refused('Size must be a number.'),
    ] as never)
    await show(ImportDialog, { object: JOB })
    await choose('jobs.csv', 'code,size\nA,1\nB,2\nC,x\n')
    expect(sendBatch).toHaveBeenCalledWith('Job', expect.anything(), true)
    expect(document.querySelector('[data-test=looked]')?.textContent).toMatch(
      /Of the first 3, 1 would be created,\s+1 changed and 1 refused/,
    )
    expect(text()).toContain('Size must be a number.')
    expect(button('Bring 3 in').disabled).toBe(false)
  })

  it('writes, and says what became of it', async () => {
    vi.mocked(sendBatch).mockResolvedValue([created, created] as never)
    const { shown } = await show(ImportDialog, { object: JOB })
    await choose('jobs.csv', 'code,size\nA,1\nB,2\n')
    await press('Bring 2 in')
    expect(sendBatch).toHaveBeenLastCalledWith(
      'Job',
      [expect.objectContaining({ code: 'A' }), expect.objectContaining({ code: 'B' })],
      false,
    )
    expect(document.querySelector('[data-test=written]')?.textContent).toContain('2 created')
    expect(shown.emitted('done')).toHaveLength(1)
    await press('Close')
    expect(shown.emitted('left')).toHaveLength(1)
  })

  it('gives the refused rows back as a file', async () => {
    vi.mocked(sendBatch).mockResolvedValue([created, refused('There is one already.')] as never)
    await show(ImportDialog, { object: JOB })
    await choose('jobs.csv', 'code,size\nA,1\nB,2\n')
    await press('Bring 2 in')
    await press('Save the refused rows as a file')
    expect(download).toHaveBeenCalledWith(
      'jobs-refused.csv',
      expect.stringContaining('There is one already.'),
    )
  })

  it('says how far it came when the service does not answer', async () => {
    vi.mocked(sendBatch).mockResolvedValueOnce([created] as never)
    await show(ImportDialog, { object: JOB })
    await choose('jobs.csv', 'code\nA\n')
    vi.mocked(sendBatch).mockRejectedValueOnce(new Error('The service does not answer.'))
    await press('Bring 1 in')
    expect(text()).toContain('The service does not answer. 0 of 1 records were worked on before')
  })

  it('warns when records would not be found again', async () => {
    vi.mocked(sendBatch).mockResolvedValue([created] as never)
    await show(ImportDialog, { object: JOB })
    await choose('jobs.csv', 'nothing,size\nA,1\n')
    expect(text()).toContain('No column goes to code, so records that are there are not found again.')
  })

  it('looks again when a column goes elsewhere', async () => {
    vi.mocked(sendBatch).mockResolvedValue([created] as never)
    const { shown } = await show(ImportDialog, { object: JOB })
    await choose('jobs.csv', 'nothing,size\nA,1\n')
    shown.findAllComponents(Select)[0]!.vm.$emit('change', 'code')
    await flushPromises()
    expect(sendBatch).toHaveBeenCalledTimes(2)
    expect(sendBatch).toHaveBeenLastCalledWith('Job', [expect.objectContaining({ code: 'A' })], true)
    expect(text()).not.toContain('No column goes to code')
  })

  it('says what is wrong with a file', async () => {
    await show(ImportDialog, { object: JOB })
    await choose('jobs.jsonl', '{"code": ')
    expect(document.querySelector('.ant-alert-error')?.textContent).toBeTruthy()
    expect(sendBatch).not.toHaveBeenCalled()
  })

  it('is left without a trace', async () => {
    const { shown } = await show(ImportDialog, { object: JOB })
    await press('Cancel')
    expect(shown.emitted('left')).toHaveLength(1)
  })
})
