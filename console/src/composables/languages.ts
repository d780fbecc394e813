import { isScalar, isSeq } from 'yaml'
import type { Draft } from '@/api/client'
import { read } from '@/editor/yamlFile'

/** The languages of the package a file is in, the main one first. */
export function languagesOf(draft: Draft | undefined, path: string): string[] {
  const own = draft?.files.find((one) => one.path === `${path.split('/')[0]}/package.yaml`)
  const languages = own ? read(own.text).get('languages') : undefined
  const named = isSeq(languages) ? languages.items.map((one) => String(isScalar(one) ? one.value : one)) : []
  return named.length ? named : ['en']
}
