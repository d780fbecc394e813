import { isScalar, isSeq } from 'yaml'
import { append, read, write } from './yamlFile'

/** Makes a package depend on another one, unless it does already. */
export function addDependency(text: string, name: string): string {
  const document = read(text)
  const depends = document.get('depends')
  if (isSeq(depends) && depends.items.some((one) => isScalar(one) && one.value === name)) return text
  if (!isSeq(depends)) document.set('depends', document.createNode([name], { flow: true }))
  else append(document, ['depends'], document.createNode(name))
  return write(document)
}
