/**
 * The component library leaves some of its widgets without what a screen reader needs (WAI-ARIA 1.2): the
 * input of a select does not say what it is for nor whether its list is open, and points to lists that are
 * not in the page. What is missing is put there as widgets come and change.
 */
export function keepWidgetsAccessible(root: HTMLElement): () => void {
  let asked = false
  const observer = new MutationObserver(() => {
    if (asked) return
    asked = true
    requestAnimationFrame(() => {
      asked = false
      mend(root)
    })
  })
  observer.observe(root, {
    subtree: true,
    childList: true,
    attributes: true,
    attributeFilter: ['class', 'aria-label', 'aria-activedescendant', 'aria-owns', 'aria-checked'],
  })
  mend(root)
  return () => observer.disconnect()
}

/** Puts right what is there now. */
export function mend(root: ParentNode) {
  root.querySelectorAll<HTMLInputElement>('.ant-select-selection-search-input').forEach(mendSelect)
  root
    .querySelectorAll('.ant-table-column-sorter [role=presentation][aria-label]')
    .forEach((one) => one.removeAttribute('aria-label'))
  root.querySelectorAll<HTMLInputElement>('input[type=checkbox][aria-checked]').forEach((one) => {
    one.indeterminate = one.getAttribute('aria-checked') === 'mixed'
    one.removeAttribute('aria-checked')
  })
  // An icon beside words, or in what has a name, says nothing of its own.
  root.querySelectorAll('button .anticon, a .anticon').forEach((one) => {
    const of = one.closest('button, a')!
    if (of.hasAttribute('aria-label') || of.textContent?.trim()) set(one, 'aria-hidden', 'true')
  })
  root.querySelectorAll<HTMLInputElement>('.ant-table-selection-column input').forEach((one) => {
    if (one.hasAttribute('aria-label')) return
    one.setAttribute('aria-label', one.closest('thead') ? 'Choose all on this page' : 'Choose this record')
  })
}

function mendSelect(input: HTMLInputElement) {
  const select = input.closest<HTMLElement>('.ant-select')
  if (!select) return
  set(input, 'aria-expanded', String(select.classList.contains('ant-select-open')))
  for (const pointer of ['aria-owns', 'aria-controls', 'aria-activedescendant']) {
    const id = input.getAttribute(pointer)
    if (id && !document.getElementById(id)) input.removeAttribute(pointer)
  }
  if (input.closest('label') || input.hasAttribute('aria-labelledby')) return
  const own = select.getAttribute('aria-label')
  const label =
    own ?? (select.id || input.id ? textOf(`label[for="${CSS.escape(select.id || input.id)}"]`) : undefined)
  if (label) set(input, 'aria-label', label)
}

function textOf(selector: string): string | undefined {
  return document.querySelector(selector)?.textContent?.trim() || undefined
}

function set(element: Element, name: string, value: string) {
  if (element.getAttribute(name) !== value) element.setAttribute(name, value)
}
