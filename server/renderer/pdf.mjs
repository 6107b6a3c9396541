import { readFile, stat } from 'node:fs/promises'
import { dirname } from 'node:path'
import { fileURLToPath } from 'node:url'
import { createCanvas } from '@napi-rs/canvas'
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs'
import { bytesInMemory, tooLarge } from './limits.mjs'

const from = dirname(fileURLToPath(import.meta.resolve('pdfjs-dist/package.json')))

/** What is drawn of one picture in it at most. */
const pixelsInside = 40_000_000
/** Signs of one page, and of all that is searched. */
const signsOnPage = 100_000
const signsInAll = 1_000_000
const searchedPages = 500

let last

/** Opened once for one page after the other. */
async function opened(path) {
  if (last?.path === path) return last.pdf
  await last?.pdf.destroy()
  last = undefined
  const { size } = await stat(path)
  if (size > bytesInMemory) throw tooLarge()
  const pdf = await getDocument({
    data: new Uint8Array(await readFile(path)),
    standardFontDataUrl: `${from}/standard_fonts/`,
    cMapUrl: `${from}/cmaps/`,
    cMapPacked: true,
    wasmUrl: `${from}/wasm/`,
    // Nothing in it is run, and nothing is fetched for it.
    isEvalSupported: false,
    useSystemFonts: false,
    maxImageSize: pixelsInside,
    verbosity: 0,
  }).promise
  last = { path, pdf }
  return pdf
}

/** What is broken is sometimes found to have pages, none of which is there. */
export async function pagesIn(path) {
  const pdf = await opened(path)
  await pdf.getPage(1)
  return pdf.numPages
}

export async function pageOf(path, number, most) {
  const page = await (await opened(path)).getPage(number)
  const natural = page.getViewport({ scale: 1 })
  const viewport = page.getViewport({ scale: most / Math.max(natural.width, natural.height) })
  const [width, height] = [viewport.width, viewport.height].map(each => Math.max(1, Math.round(each)))
  const canvas = createCanvas(width, height)
  await page.render({ canvas: null, canvasContext: canvas.getContext('2d'), viewport }).promise
  page.cleanup()
  return canvas.encode('webp', 82)
}

/** What is written on a page, each run of signs with where it stands: parts of the page's width and height, from its top left. */
export async function wordsOn(path, number) {
  const page = await (await opened(path)).getPage(number)
  const { width, height, transform } = page.getViewport({ scale: 1 })
  const { items } = await page.getTextContent()
  const words = []
  let signs = 0
  for (const item of items) {
    if (item.str === undefined || item.str.trim() === '') continue
    signs += item.str.length
    if (signs > signsOnPage) break
    const [x, y] = placed(transform, [item.transform[4], item.transform[5]])
    const size = Math.hypot(item.transform[2], item.transform[3])
    words.push({
      text: item.str,
      x: part(x / width),
      y: part((y - size) / height),
      width: part(item.width / width),
      height: part(size / height),
    })
  }
  return words
}

const placed = ([a, b, c, d, e, f], [x, y]) => [a * x + c * y + e, b * x + d * y + f]
const part = number => Math.round(number * 1e4) / 1e4

export async function textOfPages(path) {
  const pdf = await opened(path)
  let text = ''
  for (let number = 1; number <= Math.min(pdf.numPages, searchedPages); number += 1) {
    const page = await pdf.getPage(number)
    const { items } = await page.getTextContent()
    text += items.map(item => (item.str ?? '') + (item.hasEOL === true ? '\n' : '')).join('') + '\n'
    page.cleanup()
    if (text.length > signsInAll) break
  }
  return text.slice(0, signsInAll)
}
