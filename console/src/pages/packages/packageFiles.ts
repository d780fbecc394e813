import { unzip, type UnzipFileInfo, type Unzipped } from 'fflate'

/** Definition files by path, ready for the draft. */
export interface PackageFiles {
  /** What they came from. */
  from: string
  files: Record<string, string>
  /** Paths that hold no definitions. */
  left: string[]
  /** The archive itself, when it was packed by an instance, which looks through it on its own. */
  packed?: File
}

/** What a packed package says of itself. */
const MANIFEST = 'manifest.json'

const LARGEST = 5_000_000
const DEFINITION = /^[a-z0-9-]+\/((package|[a-z]+\/[A-Za-z0-9._-]+)\.yaml|data\/[A-Za-z0-9]+\.csv)$/
const READ = /\.yaml$|\/data\/[^/]+\.csv$/

/** The files of a zip archive. */
export async function filesOfZip(file: File): Promise<PackageFiles> {
  if (file.size > LARGEST) throw new Error(`${file.name} is larger than 5 MB; a package is far smaller.`)
  const bytes = new Uint8Array(await file.arrayBuffer())
  let unpacked = 0
  // An archive says of each file how long it is; no more is unpacked than packages can be.
  const filter = (one: UnzipFileInfo) => (unpacked += one.originalSize) <= LARGEST
  const entries = await new Promise<Unzipped>((resolve, reject) =>
    unzip(bytes, { filter }, (wrong, all) =>
      wrong ? reject(new Error(`${file.name} is no zip archive that can be read.`)) : resolve(all),
    ),
  )
  if (unpacked > LARGEST) throw new Error(`${file.name} unpacks to more than 5 MB; a package is far smaller.`)
  const texts: [string, string][] = []
  for (const [path, content] of Object.entries(entries)) {
    if (!path.endsWith('/')) texts.push([path, decode(path, content)])
  }
  const found = gathered(file.name, texts)
  return entries[MANIFEST] ? { ...found, left: [], packed: file } : found
}

/** The files of a folder somebody chose. */
export async function filesOfFolder(files: File[]): Promise<PackageFiles> {
  const total = files.reduce((sum, one) => sum + one.size, 0)
  const from = files[0].webkitRelativePath.split('/')[0] || files[0].name
  if (total > LARGEST) throw new Error(`${from} is larger than 5 MB; a package is far smaller.`)
  const texts: [string, string][] = []
  for (const file of files) {
    const path = file.webkitRelativePath || file.name
    if (!READ.test(path)) texts.push([path, ''])
    else texts.push([path, decode(path, new Uint8Array(await file.arrayBuffer()))])
  }
  return gathered(from, texts)
}

function decode(path: string, content: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(content)
  } catch {
    if (READ.test(path)) throw new Error(`${path} is not UTF-8; save it so and try again.`)
    return ''
  }
}

/**
 * Finds the packages among files: a folder with a package.yaml is one, however deep it lies, and goes by its
 * own name.
 */
export function gathered(from: string, texts: [string, string][]): PackageFiles {
  const roots = texts
    .map(([path]) => path)
    .filter((path) => path === 'package.yaml' || path.endsWith('/package.yaml'))
    .map((path) => path.slice(0, -'package.yaml'.length))
  if (!roots.length) throw new Error(`There is no package.yaml in ${from}, so there is no package.`)
  const files: Record<string, string> = {}
  const left: string[] = []
  for (const [path, text] of texts) {
    const root = roots.filter((one) => path.startsWith(one)).sort((a, b) => b.length - a.length)[0]
    const name = root?.split('/').at(-2) ?? from.replace(/\.zip$/, '')
    const inside = root === undefined ? path : `${name}/${path.slice(root.length)}`
    if (root !== undefined && DEFINITION.test(inside)) files[inside] = text
    else left.push(path)
  }
  return { from, files, left }
}
