const KNOWN: [RegExp, string][] = [
  [/Edg\//, 'Edge'],
  [/Firefox\//, 'Firefox'],
  [/Chrom(e|ium)\//, 'Chrome'],
  [/Safari\//, 'Safari'],
]
const SYSTEMS: [RegExp, string][] = [
  [/Windows/, 'Windows'],
  [/Android/, 'Android'],
  [/iPhone|iPad/, 'iOS'],
  [/Mac OS/, 'macOS'],
  [/Linux/, 'Linux'],
]

/** What people call the browser that names itself in a User-Agent header. */
export function browserOf(agent: string): string {
  const name = KNOWN.find(([sign]) => sign.test(agent))?.[1]
  const system = SYSTEMS.find(([sign]) => sign.test(agent))?.[1]
  if (!name) return agent.slice(0, 40) || 'Unknown browser'
  return system ? `${name} on ${system}` : name
}
