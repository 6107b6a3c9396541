/**
 * Whom a text names: between signs that nobody types, `<@` and `>`, stands an id. So a name that changes is shown as it is
 * by now, and to whoever may not know somebody there is no name.
 */
const mention = /<@([a-z0-9-]{1,40})>/g

export const mentionOf = (id: string): string => `<@${id}>`

export const mentionsIn = (text: string): string[] => [
  ...new Set([...text.matchAll(mention)].map(([, id = '']) => id)),
]

/** A text in its parts: words, and whom it names between them. */
export function partsOfText(text: string): (string | { readonly mention: string })[] {
  const parts: (string | { mention: string })[] = []
  let from = 0
  for (const { 0: whole, 1: id = '', index } of text.matchAll(mention)) {
    if (index > from) parts.push(text.slice(from, index))
    parts.push({ mention: id })
    from = index + whole.length
  }
  if (from < text.length) parts.push(text.slice(from))
  return parts
}
