import type { Read, ToRead } from './read-table.ts'
import { mostBytes } from './limits.ts'

/** Reads a file as a table in a worker. What is too large is refused before it is read. */
export async function tableIn(
  file: File,
  { mostRows, encoding }: { readonly mostRows: number; readonly encoding?: string | undefined },
): Promise<Read> {
  if (file.size > mostBytes) return { refused: 'This file is larger than 20 MB. Import it in several parts.' }
  const bytes = await file.arrayBuffer()
  const worker = new Worker(new URL('./read-table.ts', import.meta.url), { type: 'module' })
  try {
    return await new Promise<Read>(resolve => {
      worker.onmessage = ({ data }: MessageEvent<Read>) => resolve(data)
      worker.onerror = () => resolve({ refused: 'This file cannot be read.' })
      worker.postMessage({ bytes, encoding, mostRows } satisfies ToRead, [bytes])
    })
  } finally {
    worker.terminate()
  }
}
