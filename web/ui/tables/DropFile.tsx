import { type DragEvent, useState } from 'react'

interface Props {
  readonly onFile: (file: File | undefined) => void
  readonly file: string | undefined
}

/** Where a table comes in. */
export function DropFile({ onFile, file }: Props) {
  const [isOver, setOver] = useState(false)
  const onDrop = (event: DragEvent) => {
    event.preventDefault()
    setOver(false)
    onFile(event.dataTransfer.files[0])
  }
  return (
    <label
      className={`block cursor-pointer border-2 border-dashed px-4 py-5 text-center focus-within:outline-2 focus-within:outline-primary ${isOver ? 'border-primary bg-base-200' : 'border-base-content/40'}`}
      onDragOver={event => {
        event.preventDefault()
        setOver(true)
      }}
      onDragLeave={() => setOver(false)}
      onDrop={onDrop}
    >
      {file === undefined ? (
        <>
          Drop a CSV file here, or <span className="btn-inline">choose one</span>
        </>
      ) : (
        <>
          <strong className="break-words">{file}</strong> · <span className="btn-inline">choose another</span>
        </>
      )}
      <input
        type="file"
        className="sr-only"
        aria-label="CSV file"
        accept=".csv,.tsv,.txt,text/csv"
        onChange={event => {
          onFile(event.target.files?.[0])
          event.target.value = ''
        }}
      />
    </label>
  )
}
