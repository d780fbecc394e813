/** Where the service answers that this page belongs to: at the root, or where a rehearsal is served. */
const REHEARSAL = '/rehearsal'

export function placeOf(pathname: string): string {
  return pathname === REHEARSAL || pathname.startsWith(`${REHEARSAL}/`) ? REHEARSAL : ''
}

export const PLACE = placeOf(typeof location === 'undefined' ? '/' : location.pathname)

/** An address of the service, from the root of its host. */
export const at = (path: string) => PLACE + path
