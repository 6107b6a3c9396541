import { useState } from 'react'
import type { SettingsView } from '#contract/views/workspace.ts'
import { sizeWords } from '#core/words/sizes.ts'
import { counted } from '#core/words/english.ts'
import { Choice } from '../../ui/Choice.tsx'
import { TextField } from '../../ui/TextField.tsx'
import { Setting } from './Setting.tsx'

interface Props {
  readonly settings: SettingsView
}

/** What may be uploaded, how much of it is kept, and how much there is room for. */
export const Files = ({ settings }: Props) => (
  <>
    <LargestFile settings={settings} />
    <VersionsKept settings={settings} />
    <StorageQuota settings={settings} />
  </>
)

const gigabyte = 1024 ** 3
const megabyte = 1024 ** 2
const largest = [10 * megabyte, 100 * megabyte, 500 * megabyte, gigabyte, 2 * gigabyte, 5 * gigabyte]

function LargestFile({ settings: { largestFile } }: Props) {
  const [next, setNext] = useState(largestFile)
  const sizes = [...new Set([...largest, largestFile])].toSorted((a, b) => a - b)
  return (
    <Setting
      title="Largest file"
      does="A larger file is refused before its first byte is sent. Files that are here already stay."
      now={<strong>{sizeWords(largestFile)}</strong>}
      edit={next === largestFile ? undefined : { largestFile: next }}
      label={`Allow files up to ${sizeWords(next)}`}
      onLeave={() => setNext(largestFile)}
    >
      <Choice
        label="Largest file"
        value={String(next)}
        options={sizes.map(each => ({ value: String(each), name: sizeWords(each) }))}
        onValue={value => setNext(Number(value))}
      />
    </Setting>
  )
}

const fewest = 1
const most = 1000

function VersionsKept({ settings: { versionsKept } }: Props) {
  const [next, setNext] = useState(String(versionsKept))
  const number = Number(next)
  const isRight = /^\d{1,4}$/.test(next) && number >= fewest && number <= most
  return (
    <Setting
      title="Versions of a file"
      does="Each upload over a file is a version. When there are more, the oldest goes for good. Nothing goes until the next upload."
      now={<strong>{counted(versionsKept, 'version is', 'versions are')} kept</strong>}
      edit={isRight && number !== versionsKept ? { versionsKept: number } : undefined}
      label={`Keep ${counted(number, 'version', 'versions')}`}
      onLeave={() => setNext(String(versionsKept))}
    >
      <TextField
        label="How many are kept"
        hint={`A number from ${fewest} to ${most}.`}
        inputMode="numeric"
        value={next}
        onValue={setNext}
      />
    </Setting>
  )
}

function StorageQuota({ settings: { storageQuota } }: Props) {
  const words = storageQuota === null ? '' : String(Math.round((storageQuota / gigabyte) * 100) / 100)
  const [next, setNext] = useState(words)
  const typed = next.trim().replace(',', '.')
  const isRight = typed === '' || /^\d{1,4}(\.\d{1,2})?$/.test(typed)
  const bytes = typed === '' ? null : Math.round(Number(typed) * gigabyte)
  return (
    <Setting
      title="Storage quota"
      does="All versions of all files together take at most so much. An upload for which there is no room is refused with what would help; nothing that is here is touched."
      now={<strong>{storageQuota === null ? 'No quota' : sizeWords(storageQuota)}</strong>}
      edit={isRight && bytes !== storageQuota && next !== words ? { storageQuota: bytes } : undefined}
      label={bytes === null ? 'Remove the quota' : `Set to ${sizeWords(bytes)}`}
      onLeave={() => setNext(words)}
    >
      <TextField
        label="Quota in GB"
        hint="An empty field means no quota."
        inputMode="decimal"
        value={next}
        onValue={setNext}
      />
    </Setting>
  )
}
