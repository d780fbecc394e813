/** Codes of problems that the console acts upon; all others it shows as they are told. */
export const CODES = {
  /** A field that must have a value has none. */
  REQUIRED: 'SP4103',
  /** Other records refer to one that shall go. */
  IN_USE: 'SP4112',
} as const
