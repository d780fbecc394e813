/** A field as a service is designed with it: text that callers may write, unless more is said. */
export const field = (name: string, more = {}) => ({
  name,
  label: name,
  type: 'text',
  readOnly: false,
  required: false,
  onRead: false,
  ...more,
})
