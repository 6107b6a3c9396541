// A process of its own for bytes that people send as pictures: what reads them has no part in anything else, and is
// stopped where it takes too long. It makes each square and small, and leaves out what a camera wrote into it.
import sharp from 'sharp'

/** Pixels on each side: twice what any page shows. */
const size = 256
/** A picture that would unpack to more than this is not unpacked. */
const mostPixels = 40_000_000

sharp.concurrency(1)
sharp.cache(false)

process.on('message', async ({ id, bytes }) => {
  process.send?.({ id, data: await scaled(bytes) })
})

async function scaled(bytes) {
  try {
    // The head alone tells how large it is.
    const { width, height, pages = 1 } = await sharp(bytes).metadata()
    if (width * height * pages > mostPixels) return undefined
    // Turned as its camera says before that is dropped with the rest.
    const picture = sharp(bytes, { limitInputPixels: mostPixels }).rotate()
    return await picture.resize(size, size, { fit: 'cover' }).webp({ quality: 82 }).toBuffer()
  } catch {
    return undefined
  }
}
