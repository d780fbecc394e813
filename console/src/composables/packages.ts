import { computed, type Ref } from 'vue'
import type { Diagnostic, Draft, DraftFile } from '@/api/client'
import { newServiceText } from '@/editor/serviceFile'
import { read } from '@/editor/yamlFile'

export type FileKind =
  | 'package'
  | 'object'
  | 'extension'
  | 'choices'
  | 'service'
  | 'service-extension'
  | 'event'
  | 'route'
  | 'connection'
  | 'contract'
  | 'role'
  | 'view'
  | 'seed'
  | 'requirement'
  | 'other'

interface KindWords {
  kind: FileKind
  /** The folder such files are in. */
  folder: string
  title: string
  /** What one of them is, for whoever makes the first. */
  what: string
  /** How a name must look, and what to say when it does not. */
  form: RegExp
  formSaid: string
  begin: (name: string) => string
}

const CAPITAL = /^[A-Z][A-Za-z0-9]{0,59}$/
const CAPITAL_SAID =
  'A name begins with a capital letter and has only letters and digits, such as BoatTrailer.'
const SMALL = /^[a-z][a-z0-9-]{0,59}$/
const SMALL_SAID = 'A name has small letters, digits and hyphens, such as order-desk.'

/** The kinds of files that can be made, in the order in which they are shown. */
export const KINDS: KindWords[] = [
  {
    kind: 'object',
    folder: 'objects',
    title: 'Objects',
    what: 'What records are kept of, with fields, line items and logic.',
    form: CAPITAL,
    formSaid: CAPITAL_SAID,
    begin: (name) =>
      `object: ${name}\nkey: code\nfields:\n  code: { type: text, length: 20, required: true }\n  name: { type: text, length: 80, required: true }\n`,
  },
  {
    kind: 'extension',
    folder: 'extensions',
    title: 'Extensions',
    what: 'Fields and logic added to an object of another package.',
    form: CAPITAL,
    formSaid: 'Name the object that is extended, such as Customer.',
    begin: (name) => `extend: ${name}\nfields: {}\n`,
  },
  {
    kind: 'choices',
    folder: 'choices',
    title: 'Choice lists',
    what: 'Codes with labels that several fields offer.',
    form: CAPITAL,
    formSaid: CAPITAL_SAID,
    begin: (name) => `choices: ${name}\ncodes:\n  first: First\n  second: Second\n`,
  },
  {
    kind: 'service',
    folder: 'services',
    title: 'Services',
    what: 'What outside systems and apps can read and write.',
    form: SMALL,
    formSaid: SMALL_SAID,
    begin: (name) => newServiceText(name, ['rest']),
  },
  {
    kind: 'service-extension',
    folder: 'service-extensions',
    title: 'Service extensions',
    what: 'Fields of this package that a service of another one shows and takes besides.',
    form: SMALL,
    formSaid: 'Name the service that is added to, such as order-desk.',
    begin: (name) => `extend: ${name}\nresources: {}\n`,
  },
  {
    kind: 'event',
    folder: 'events',
    title: 'Events',
    what: 'What others hear of when it happens.',
    form: CAPITAL,
    formSaid: CAPITAL_SAID,
    begin: (name) => `event: ${name}\nfields: {}\n`,
  },
  {
    kind: 'route',
    folder: 'routes',
    title: 'Routes',
    what: 'Which documents are made from which others, so that fields travel along.',
    form: SMALL,
    formSaid: SMALL_SAID,
    begin: (name) => `route: ${name}\nsteps: []\n`,
  },
  {
    kind: 'connection',
    folder: 'connections',
    title: 'Connections',
    what: 'Outside services that give codes and answers.',
    form: SMALL,
    formSaid: SMALL_SAID,
    begin: (name) => `connection: ${name}\ncontract: ${name}.openapi.json\n`,
  },
  {
    kind: 'contract',
    folder: 'connections',
    title: 'Contracts of outside services',
    what: 'What an outside service offers (OpenAPI); brought in on the page Connections.',
    form: SMALL,
    formSaid: SMALL_SAID,
    begin: () => '{ "openapi": "3.1.0", "info": { "title": "", "version": "1" }, "paths": {} }\n',
  },
  {
    kind: 'role',
    folder: 'roles',
    title: 'Roles',
    what: 'What people may do who are given them, wherever the package is used.',
    form: SMALL,
    formSaid: SMALL_SAID,
    begin: (name) => `role: ${name}\nobjects: {}\n`,
  },
  {
    kind: 'view',
    folder: 'views',
    title: 'Views',
    what: 'Ways to look at a list that all have who see its records.',
    form: SMALL,
    formSaid: SMALL_SAID,
    begin: (name) => `view: ${name}\nobject: Name\n`,
  },
  {
    kind: 'seed',
    folder: 'data',
    title: 'Records',
    what: 'Records that come with the package, in CSV; what people change stays theirs.',
    form: CAPITAL,
    formSaid: 'Name the object whose records they are, such as Season.',
    begin: () => 'code\n',
  },
  {
    kind: 'requirement',
    folder: 'requirements',
    title: 'Requirements',
    what: 'What was asked for, with examples that prove it.',
    form: SMALL,
    formSaid: SMALL_SAID,
    begin: () => `requirements:\n  R1:\n    text: What was asked for.\n`,
  },
]

/** What kind of file is at a path; it need not be right. */
export function kindOf(path: string): FileKind {
  const inside = path.slice(path.indexOf('/') + 1)
  if (inside === 'package.yaml') return 'package'
  return (
    // A contract in YAML has the ending of a connection as well.
    [...KINDS]
      .sort((one) => (one.kind === 'contract' ? -1 : 0))
      .find((one) => new RegExp(`^${one.folder}/[^/]+\\.${ending(one.kind)}$`).test(inside))?.kind ?? 'other'
  )
}

const ending = (kind: FileKind) =>
  kind === 'seed' ? 'csv' : kind === 'contract' ? 'openapi\\.(json|yaml)' : 'yaml'

/** How a file for a name is called: CraftInspection becomes craft-inspection.yaml. */
export function fileNameOf(name: string): string {
  return `${name.replace(/(?<=[a-z0-9])(?=[A-Z])/g, '-').toLowerCase()}.yaml`
}

/** Where a file of a kind and name goes. */
export function pathOf(folder: string, kind: FileKind, name: string): string {
  const words = KINDS.find((one) => one.kind === kind)!
  // A file of records is called as their object.
  const file =
    kind === 'seed' ? `${name}.csv` : kind === 'contract' ? `${name}.openapi.json` : fileNameOf(name)
  return `${folder}/${words.folder}/${file}`
}

/** The text of a new file, which is right to begin with. */
export function beginningOf(kind: FileKind, name: string): string {
  return KINDS.find((one) => one.kind === kind)!.begin(name)
}

/** What a definition calls itself, or undefined when its text does not say. */
export function definedName(file: DraftFile): string | undefined {
  try {
    const document = read(file.text)
    for (const key of [
      'view',
      'object',
      'extend',
      'choices',
      'service',
      'event',
      'route',
      'connection',
      'role',
      'package',
    ]) {
      const name = document.get(key)
      if (typeof name === 'string') return name
    }
  } catch {
    // a file may be anything
  }
  return undefined
}

export interface FileEntry {
  path: string
  /** The file's name without folders. */
  file: string
  kind: FileKind
  /** What it defines, as it calls itself. */
  name?: string
  errors: number
  warnings: number
  state: 'released' | 'added' | 'changed'
}

export interface PackageEntry {
  name: string
  label: string
  sealed: boolean
  files: FileEntry[]
  errors: number
}

/** Files that differ from the live release, by path. */
export type Differences = Map<string, 'added' | 'changed'>

/** The files of the draft by package, whatever state they are in. */
export function packagesOf(draft: Draft | undefined, differences: Differences): PackageEntry[] {
  const packages = new Map<string, PackageEntry>()
  for (const file of draft?.files ?? []) {
    const name = file.path.split('/')[0]
    let entry = packages.get(name)
    if (!entry) {
      entry = { name, label: name, sealed: draft?.sealed.includes(name) ?? false, files: [], errors: 0 }
      packages.set(name, entry)
    }
    const own = (draft?.diagnostics ?? []).filter((one) => one.file === file.path)
    const errors = count(own, 'ERROR')
    const kind = kindOf(file.path)
    if (kind === 'package') entry.label = labelOf(file) ?? name
    entry.errors += errors
    entry.files.push({
      path: file.path,
      file: file.path.split('/').at(-1)!,
      kind,
      name: definedName(file),
      errors,
      warnings: count(own, 'WARNING'),
      state: differences.get(file.path) ?? 'released',
    })
  }
  return [...packages.values()]
}

function count(all: Diagnostic[], severity: Diagnostic['severity']): number {
  return all.filter((one) => one.severity === severity).length
}

function labelOf(file: DraftFile): string | undefined {
  try {
    const label = read(file.text).get('label')
    return label === undefined || label === null ? undefined : String(label)
  } catch {
    return undefined
  }
}

/** The packages something can be put into. */
export function useOpenPackages(draft: Ref<Draft | undefined>) {
  return computed(() => packagesOf(draft.value, new Map()).filter((one) => !one.sealed))
}

/** The text of a new package's own file. */
export function newPackageText(of: {
  name: string
  label: string
  languages: string
  currency: string
  zone: string
}): string {
  const lines = [`package: ${of.name}`, 'version: 0.1']
  if (of.label.trim()) lines.push(`label: ${JSON.stringify(of.label.trim())}`)
  const languages = of.languages
    .split(/[\s,]+/)
    .map((one) => one.trim())
    .filter(Boolean)
  if (languages.length) lines.push(`languages: [${languages.join(', ')}]`)
  if (of.currency.trim()) lines.push(`currency: ${of.currency.trim()}`)
  if (of.zone.trim()) lines.push(`zone: ${of.zone.trim()}`)
  return `${lines.join('\n')}\n`
}
