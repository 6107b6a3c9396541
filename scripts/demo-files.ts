import { createHash } from 'node:crypto'
import { extname } from 'node:path'
import { Readable } from 'node:stream'
import { PDFDocument } from '@napi-rs/canvas'
import sharp from 'sharp'
import type { Transaction } from 'sequelize'
import { eachRow } from '#core/base/collection.ts'
import { type State, workspaceOf } from '#core/state/state.ts'
import type { ContentNode } from '#core/tree/node.ts'
import { kindOf } from '#server/files/kind.ts'
import type { Parts } from '#server/parts.ts'
import { fileVersions } from '#server/store/content/file-versions.ts'
import { writeRows } from '#server/store/rows.ts'
import type { BlobRow } from '#server/store/tables.ts'
import { type Scene, drawn } from './demo-pictures.ts'

/** The bytes of the demo's files: pictures that are drawn, letters and manuals, tables and tracks, the same on every machine. */

interface Seeding {
  readonly state: State
  readonly transaction: Transaction
}

export async function writeFiles(parts: Parts, { state, transaction }: Seeding): Promise<void> {
  const blobs = new Map<string, BlobRow>()
  const { tables } = parts.writer
  const nodes = [...eachRow(state.nodes)].filter(each => each.kind === 'file')
  for (const node of nodes) {
    const versions = hasEarlier.test(node.name) ? 2 : 1
    for (let version = 1; version <= versions; version += 1) {
      const bytes = await bytesOf(node, version)
      const hash = createHash('sha256').update(bytes).digest('hex')
      const known = blobs.get(hash)
      const blob = known ?? (await stored(parts, { state, node, bytes }))
      blobs.set(hash, blob)
      const { workspace, size, kind } = blob
      const changedAt = node.madeAt + (version - 1) * 3_600_000
      const { rows } = fileVersions.write(
        {
          workspace,
          node: node.id,
          version,
          hash,
          size,
          kind,
          restoredFrom: null,
          changedAt,
          changedBy: node.maker,
        },
        null,
      )
      const put = known === undefined ? [{ kind: 'put', table: 'blobs', rows: [blob] } as const] : []
      await writeRows(tables, [...put, ...rows], transaction)
    }
  }
}

/** What was put there again after somebody found a mistake in it. */
const hasEarlier = /^(Letter|Water levels|Sketch|County)/

async function stored(
  { files, newId, clock }: Parts,
  { state, node, bytes }: { readonly state: State; readonly node: ContentNode; readonly bytes: Buffer },
): Promise<BlobRow> {
  const [upload, part, name] = [newId(), newId(), newId()]
  const receiving = { bytes: Readable.from([bytes]), atMost: bytes.length, onLasting: () => {} }
  const { sha256 } = await files.receive(upload, part, receiving)
  await files.settle(upload, { parts: [{ name: part, bytes: bytes.length }], name, sha256 })
  await files.dropUpload(upload)
  const kind = await kindOf(files.pathOf(name), node.name)
  return { workspace: workspaceOf(state).id, hash: sha256, name, size: bytes.length, kind, madeAt: clock() }
}

/** Of as many pictures as these there are several copies: each lies on the disk once. */
const pictures = 14
const made = new Map<string, Promise<Buffer>>()

function bytesOf({ id, name }: ContentNode, version: number): Promise<Buffer> {
  const ending = extname(name).toLowerCase()
  const number = createHash('sha256').update(id).digest().readUInt32LE(0)
  switch (ending) {
    case '.jpg':
    case '.png':
    case '.tif':
      return picture(sceneOf(name), (number % pictures) + version, ending)
    case '.pdf':
      return Promise.resolve(/^(Outboard|Radios)/.test(name) ? manual(name) : letter(name, version))
    case '.csv':
      return Promise.resolve(Buffer.from(table(name, number + version)))
    default:
      return Promise.resolve(Buffer.from(track(number)))
  }
}

function sceneOf(name: string): Scene {
  if (/post/i.test(name)) return 'post'
  if (/quadrat/i.test(name)) return 'quadrat'
  if (/sketch/i.test(name)) return 'map'
  return 'shore'
}

function picture(scene: Scene, seed: number, ending: string): Promise<Buffer> {
  const key = `${scene} ${seed} ${ending}`
  const before = made.get(key)
  if (before !== undefined) return before
  const pixels = drawn(scene, seed)
  const making =
    ending === '.jpg'
      ? pixels.encode('jpeg', 82)
      : ending === '.png'
        ? pixels.encode('png')
        : sharp(pixels.toBuffer('image/png')).tiff({ compression: 'lzw' }).toBuffer()
  made.set(key, making)
  return making
}

const [width, height] = [595, 842]
const margin = 72

/** Lines on pages, larger where they begin with a sign for it. */
function printed(pages: readonly (readonly string[])[]): Buffer {
  const document = new PDFDocument({ title: 'Marram Coast Survey' })
  for (const lines of pages) {
    const page = document.beginPage(width, height)
    page.fillStyle = '#1d2a2a'
    let y = margin
    for (const line of lines) {
      const isHead = line.startsWith('# ')
      page.font = isHead ? 'bold 20px sans-serif' : '12px sans-serif'
      page.fillText(isHead ? line.slice(2) : line, margin, y)
      y += isHead ? 34 : 19
    }
    document.endPage()
  }
  return Buffer.from(document.close())
}

const sender = ['Marram Coast Survey', 'The old lifeboat house', 'Sallow Quay', '']

const letter = (name: string, version: number): Buffer =>
  printed([
    [
      ...sender,
      `# ${name.replace(/\.pdf$/, '').replace(/, .*/, '')}`,
      'Dear colleagues,',
      '',
      `we ask for your consent to land at Tern Bank on ${version === 1 ? 'six' : 'five'} days of the season, each time`,
      'with one boat and at most four people. We keep to the seaward side,',
      'and leave before the second whistle.',
      '',
      'We count from the boat wherever that will do. No nest is visited',
      'twice, and nothing is left behind but the posts of the transects.',
      '',
      'What we find goes into the yearly report, which you receive first.',
      '',
      'With our thanks,',
      'the office of the Survey',
    ],
    [
      '# Days and tides',
      'Low water at the outer mark, from the table of the harbour office.',
      '',
      ...['4 May   06:12', '18 May   05:40', '2 June   06:55', '16 June   06:20', '1 July   07:08'].map(
        each => `–  ${each}`,
      ),
      '',
      'A day is moved when the wind is above force five.',
    ],
  ])

const manual = (name: string): Buffer =>
  printed([
    [`# ${name.replace('.pdf', '')}`, 'For everybody who takes a boat out. Read it before the first time.'],
    [
      '# Before you start',
      '1. Fuel: two thirds at least.',
      '2. Kill cord on, and tried.',
      '3. Radio on channel 8.',
    ],
    [
      '# On the water',
      'Slow within two hundred metres of any bird on the water.',
      'Cross the bar on a rising tide only.',
    ],
    ['# Afterwards', 'Rinse with fresh water, at least ten minutes.', 'Write into the log what sounded odd.'],
  ])

const species = ['Ringed plover', 'Oystercatcher', 'Redshank', 'Little tern', 'Dunlin', 'Curlew', 'Shelduck']
const sites = ['North Spit', 'Gull Sands', 'Harrow Creek', 'Long Marsh', 'Tern Bank']

function table(name: string, seed: number): string {
  const row = (index: number) => {
    const value = (index * 7919 + seed) % 97
    return /water|results/i.test(name)
      ? `2026-0${1 + (index % 8)}-${String(1 + ((index * 3) % 28)).padStart(2, '0')},${sites[index % sites.length] ?? ''},${(value / 41).toFixed(2)},${20 + (value % 15)}`
      : `${sites[index % sites.length] ?? ''},${species[(index + seed) % species.length] ?? ''},${value},${index % 4 === 0 ? 'from the boat' : 'from the dyke'}`
  }
  const head = /water|results/i.test(name) ? 'day,site,level in m,salinity' : 'site,species,count,seen'
  return `${head}\n${Array.from({ length: 60 }, (_, index) => row(index)).join('\n')}\n`
}

const track = (seed: number): string => `<?xml version="1.0"?>
<gpx version="1.1"><trk><name>Tideline</name><trkseg>
${Array.from({ length: 40 }, (_, index) => `<trkpt lat="${(54 + (seed % 50) / 1000 + index / 5000).toFixed(5)}" lon="${(8.5 + index / 4000).toFixed(5)}"/>`).join('\n')}
</trkseg></trk></gpx>
`
