import { open } from 'node:fs/promises'
import { extname } from 'node:path'
import { fileTypeFromFile } from 'file-type'

/** What is neither text nor known by its first bytes: it is kept and given back, and nothing else is done with it. */
export const unknownKind = 'application/octet-stream'

/** Of texts only the name tells which; each is shown as text. */
const texts: Readonly<Record<string, string>> = {
  '.csv': 'text/csv',
  '.tsv': 'text/tab-separated-values',
  '.md': 'text/markdown',
}

/** So much from the start tells whether something is text. */
const looked = 64 * 1024

/** The media type of a file, by its bytes. What a browser would run as part of a page is text like any other. */
export async function kindOf(path: string, name: string): Promise<string> {
  const start = await startOf(path)
  // How such a text begins, some sound does as well.
  const wide = isWideText(start)
  const found = wide ? undefined : await fileTypeFromFile(path).catch(() => undefined)
  // A kind that is text with a meaning to browsers (SVG, HTML, XML) is told by nothing but its bytes, and is never shown as that.
  if (found !== undefined && !found.mime.endsWith('xml')) return found.mime
  return wide || isText(start) ? (texts[extname(name).toLowerCase()] ?? 'text/plain') : unknownKind
}

async function startOf(path: string): Promise<Uint8Array> {
  const file = await open(path, 'r')
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(looked), 0, looked, 0)
    return buffer.subarray(0, bytesRead)
  } finally {
    await file.close()
  }
}

/** Tab, the ends of lines and pages. */
const gaps: ReadonlySet<number> = new Set([9, 10, 12, 13])
const steers = (code: number): boolean => (code < 32 && !gaps.has(code)) || code === 127

/** Whatever letters it is written in: signs that steer stand in no text. */
const isText = (bytes: Uint8Array): boolean => !bytes.some(steers)

/** The same of two bytes a sign, in either order: its first sign says in which. */
function isWideText(bytes: Uint8Array): boolean {
  const order = { '255 254': 'utf-16le', '254 255': 'utf-16be' }[bytes.subarray(0, 2).join(' ')]
  if (order === undefined) return false
  const text = new TextDecoder(order).decode(bytes, { stream: true })
  return !Array.from(text).some(sign => steers(sign.charCodeAt(0)) || sign === '\ufffd')
}
