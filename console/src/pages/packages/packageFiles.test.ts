import { strToU8, zipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { filesOfZip, gathered } from './packageFiles'

describe('packages that are brought in', () => {
  it('are found however deep they lie', () => {
    const found = gathered('all.zip', [
      ['out/yard/package.yaml', 'package: yard'],
      ['out/yard/objects/boat.yaml', 'object: Boat'],
      ['out/yard/README.md', ''],
      ['out/other/notes.txt', ''],
    ])
    expect(found.files).toEqual({
      'yard/package.yaml': 'package: yard',
      'yard/objects/boat.yaml': 'object: Boat',
    })
    expect(found.left).toEqual(['out/yard/README.md', 'out/other/notes.txt'])
  })

  it('go by the name of the archive when they lie at its top', () => {
    expect(Object.keys(gathered('yard.zip', [['package.yaml', 'x']]).files)).toEqual(['yard/package.yaml'])
  })

  it('are refused in words when there is none', () => {
    expect(() => gathered('x.zip', [['a.txt', '']])).toThrow('There is no package.yaml in x.zip')
  })

  it('come out of a zip archive, unless it is none or not UTF-8', async () => {
    const zip = zipSync({ 'yard/package.yaml': strToU8('package: yard\nlabel: Wérft\n') })
    const found = await filesOfZip(new File([zip as BlobPart], 'a.zip'))
    expect(found.files['yard/package.yaml']).toContain('Wérft')
    await expect(filesOfZip(new File(['no zip'], 'b.zip'))).rejects.toThrow('no zip archive')
    const latin = zipSync({ 'yard/package.yaml': new Uint8Array([0x6c, 0xe9]) })
    await expect(filesOfZip(new File([latin as BlobPart], 'c.zip'))).rejects.toThrow('not UTF-8')
  })

  it('are not unpacked beyond what packages can be, and that is said', async () => {
    const full = zipSync({
      'yard/package.yaml': strToU8('package: yard'),
      'yard/objects/boat.yaml': new Uint8Array(3_000_000),
      'yard/objects/oar.yaml': new Uint8Array(3_000_000),
    })
    await expect(filesOfZip(new File([full as BlobPart], 'd.zip'))).rejects.toThrow(
      'd.zip unpacks to more than 5 MB',
    )
  })
})
