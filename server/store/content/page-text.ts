import { versioned, type VersionRow } from './versioned.ts'

export interface TextRow extends VersionRow {
  readonly text: string
}

/** The text of a page. One is 200,000 characters at most (contract/requests.ts). */
export const pageText = versioned<TextRow, 'text'>({
  table: 'texts',
  mostVersions: 10_000,
  whole: ['text'],
})
