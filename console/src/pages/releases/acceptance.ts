import type { components } from '@/api/manage'

type Preview = components['schemas']['ReleasePreview']

/** What whoever releases takes upon themselves; `forget` keeps nothing of it aside. */
export interface Acceptance {
  losses: boolean
  breaks: boolean
  forget: boolean
}

export const NOTHING_ACCEPTED: Acceptance = { losses: false, breaks: false, forget: false }

/** Whether what a preview tells may be released with that. */
export function isCovered(preview: Preview, accepted: Acceptance): boolean {
  return (
    preview.files.length > 0 &&
    !preview.diagnostics.some((one) => one.severity === 'ERROR') &&
    preview.obstacles.length === 0 &&
    (preview.losses.length === 0 || accepted.losses) &&
    (preview.breaks.length === 0 || accepted.breaks)
  )
}

/** The body of the request that releases. */
export function order(note: string, accepted: Acceptance) {
  return {
    note,
    acceptLosses: accepted.losses,
    acceptBreaks: accepted.breaks,
    forget: accepted.forget,
  }
}
