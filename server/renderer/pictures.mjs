import { readdirSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { createCanvas, GlobalFonts, loadImage } from '@napi-rs/canvas'
import sharp from 'sharp'
import { pixelsOfPicture, pixelsOfSquare, tooLarge } from './limits.mjs'

sharp.concurrency(1)
sharp.cache(false)

/** Pixels on each side: twice what any page shows. */
const squareSize = 256

/** Square and small, without what a camera wrote into it. */
export async function square(bytes) {
  await checkSize(bytes, pixelsOfSquare)
  // Turned as its camera says before that is dropped with the rest.
  const turned = sharp(bytes, { limitInputPixels: pixelsOfSquare }).rotate()
  return turned.resize(squareSize, squareSize, { fit: 'cover' }).webp({ quality: 82 }).toBuffer()
}

/** The whole of it, upright, without what a camera wrote into it; of several pictures in one the first. */
export async function picture(path, most) {
  await checkSize(path, pixelsOfPicture)
  const turned = sharp(path, { limitInputPixels: pixelsOfPicture, sequentialRead: true }).rotate()
  return turned
    .resize(most, most, { fit: 'inside', withoutEnlargement: true })
    .webp({ quality: 82, effort: 2 })
    .toBuffer()
}

/** The head alone tells how large it is. */
async function checkSize(input, most) {
  const { width, height, pages = 1 } = await sharp(input, { limitInputPixels: false }).metadata()
  if (width * height * (input instanceof Uint8Array ? pages : 1) > most) throw tooLarge()
}

const family = 'Mark'

/** The typeface of the pages, for as many letters as it has. */
function fontReady() {
  if (GlobalFonts.has(family)) return
  const found = fileURLToPath(import.meta.resolve('@fontsource/atkinson-hyperlegible-next/package.json'))
  const files = join(dirname(found), 'files')
  for (const name of readdirSync(files))
    if (name.endsWith('-600-normal.woff2')) GlobalFonts.registerFromPath(join(files, name), family)
}

/** Written across all of it, again and again: cut out of any part, it is still there. */
export async function marked(bytes, line) {
  fontReady()
  const { width, height } = await sharp(bytes).metadata()
  // Pixels one way, so that nothing has to know how the other unpacks them.
  const canvas = createCanvas(width, height)
  const context = canvas.getContext('2d')
  context.drawImage(await loadImage(await sharp(bytes).png({ compressionLevel: 0 }).toBuffer()), 0, 0)
  const size = Math.max(11, Math.round(width / 34))
  context.font = `${size}px ${family}`
  context.rotate(-Math.PI / 7)
  const step = { across: context.measureText(line).width + size * 3, down: size * 5 }
  const reach = width + height
  for (let row = 0, y = -reach; y < reach; y += step.down, row += 1)
    for (let x = -reach + (row % 2) * (step.across / 2); x < reach; x += step.across) {
      // Dark with a light edge: to be read on either.
      context.strokeStyle = 'rgba(255, 255, 255, 0.35)'
      context.fillStyle = 'rgba(0, 0, 0, 0.3)'
      context.lineWidth = size / 12
      context.strokeText(line, x, y)
      context.fillText(line, x, y)
    }
  return canvas.encode('webp', 80)
}
