import { createCanvas, PDFDocument } from '@napi-rs/canvas'
import { deflateSync } from 'node:zlib'
import sharp from 'sharp'

/** Files as people have them, made where they are needed. */

/** A PDF with a line on each page. */
export function pdf(...lines: readonly string[]): Buffer {
  const document = new PDFDocument()
  for (const line of lines) {
    const page = document.beginPage(595, 842)
    page.font = '24px sans-serif'
    page.fillText(line, 72, 100)
    document.endPage()
  }
  return Buffer.from(document.close())
}

/** A PDF of one page, on which is drawn what packed bytes say. */
export function pdfOf(packed: Uint8Array): Buffer {
  const objects = [
    '<< /Type /Catalog /Pages 2 0 R >>',
    '<< /Type /Pages /Count 1 /Kids [3 0 R] >>',
    '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 842] /Contents 4 0 R >>',
  ].map((each, index) => `${index + 1} 0 obj\n${each}\nendobj\n`)
  const drawn = `4 0 obj\n<< /Length ${packed.length} /Filter /FlateDecode >>\nstream\n`
  return Buffer.concat([
    Buffer.from(`%PDF-1.7\n${objects.join('')}${drawn}`),
    packed,
    Buffer.from('\nendstream\nendobj\ntrailer << /Size 5 /Root 1 0 R >>\n%%EOF'),
  ])
}

/** A picture of one colour with a corner of another, as a camera on its side took it: what it wrote into it says where. */
export const photograph = (width = 400, height = 300): Promise<Buffer> => {
  const corner = createCanvas(width / 4, height / 4)
  corner.getContext('2d').fillRect(0, 0, width, height)
  return sharp({ create: { width, height, channels: 3, background: '#3a7' } })
    .composite([{ input: corner.toBuffer('image/png'), left: 0, top: 0 }])
    .withExif({ IFD0: { ImageDescription: 'taken at the secret nest' } })
    .withMetadata({ orientation: 6 })
    .jpeg()
    .toBuffer()
}

/** A picture that says it is as large as this, and holds as much: a few bytes a million pixels. */
export function hugePicture(width: number, height: number): Buffer {
  const header = Buffer.alloc(13)
  header.writeUInt32BE(width, 0)
  header.writeUInt32BE(height, 4)
  header.set([1, 0, 0, 0, 0], 8)
  const rows = deflateSync(Buffer.alloc((Math.ceil(width / 8) + 1) * height), { level: 9 })
  const chunk = (kind: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(kind), data])
    const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)]
    length.writeUInt32BE(data.length)
    sum.writeUInt32BE(crc32(body))
    return Buffer.concat([length, body, sum])
  }
  const signature = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])
  return Buffer.concat([
    signature,
    chunk('IHDR', header),
    chunk('IDAT', rows),
    chunk('IEND', Buffer.alloc(0)),
  ])
}

/** Of PNG (RFC 2083, appendix); Node has its own from the next version on. */
function crc32(bytes: Uint8Array): number {
  let sum = 0xffffffff
  for (const byte of bytes) {
    sum ^= byte
    for (let bit = 0; bit < 8; bit += 1) sum = (sum >>> 1) ^ (sum & 1 ? 0xedb88320 : 0)
  }
  return (sum ^ 0xffffffff) >>> 0
}
