import type { ContentNode } from '#core/tree/node.ts'

/** What lists what is not in it. */
export const leftOutName = 'Only to look at.txt'

/**
 * Names in a ZIP that any system can unpack, one below another: none leads elsewhere, none is there twice, also where
 * large and small letters count alike.
 */
export function namesIn(): (folder: string, node: Pick<ContentNode, 'name' | 'kind'>) => string {
  const taken = new Set([leftOutName.toLowerCase()])
  return (folder, { name, kind }) => {
    const [stem, ending] = kind === 'page' ? [name, '.md'] : splitName(name, kind)
    const safe = safeName(stem)
    for (let count = 1; ; count += 1) {
      const path = `${folder}${safe}${count === 1 ? '' : ` (${count})`}${ending}`
      if (taken.has(path.toLowerCase())) continue
      taken.add(path.toLowerCase())
      return path
    }
  }
}

/** A file keeps its ending behind what is added to its name. */
function splitName(name: string, kind: ContentNode['kind']): readonly [string, string] {
  const [, stem = name, ending = ''] = kind === 'file' ? (/^(.+?)(\.[a-z0-9]{1,8})$/i.exec(name) ?? []) : []
  return [stem, ending]
}

/** Signs that some system gives a meaning, and names that are devices there. */
const forbidden = /[<>:"/\\|?*\p{Cc}]/gu
const devices = /^(con|prn|aux|nul|com\d|lpt\d)(\.|$)/i

function safeName(name: string): string {
  const cleaned = name
    .replaceAll(forbidden, '_')
    .replace(/[. ]+$/, '')
    .trimStart()
  return cleaned === '' || devices.test(cleaned) ? `_${cleaned}` : cleaned
}
