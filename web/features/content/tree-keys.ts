/**
 * Arrow keys in the tree: up and down through what is open, right and left to open, close and climb.
 * Returns whether the key meant something. Works on the page's own items, whose order is the order seen.
 */
export function moveInTree(tree: HTMLElement, key: string): boolean {
  const items = [...tree.querySelectorAll<HTMLElement>('[data-tree-link]')]
  const here = items.findIndex(item => item === document.activeElement)
  const current = items[here]
  if (current === undefined) return false
  switch (key) {
    case 'ArrowDown':
      return focus(items[here + 1])
    case 'ArrowUp':
      return focus(items[here - 1])
    case 'Home':
      return focus(items[0])
    case 'End':
      return focus(items.at(-1))
    case 'ArrowRight':
      return isOpen(current) ? focus(items[here + 1]) : toggle(current)
    case 'ArrowLeft':
      return isOpen(current) ? toggle(current) : focus(parentOf(current))
    default:
      return false
  }
}

const toggleOf = (link: HTMLElement) =>
  link.parentElement?.querySelector<HTMLElement>('[data-tree-toggle]') ?? undefined

const isOpen = (link: HTMLElement) => toggleOf(link)?.getAttribute('aria-expanded') === 'true'

const parentOf = (link: HTMLElement) =>
  link.closest('li')?.parentElement?.closest('li')?.querySelector<HTMLElement>('[data-tree-link]')

function focus(link: HTMLElement | null | undefined): boolean {
  link?.focus()
  return link != null
}

function toggle(link: HTMLElement): boolean {
  const button = toggleOf(link)
  button?.click()
  return button !== undefined
}
