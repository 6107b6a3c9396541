/** What the processes that read what people send are asked for (child.mjs), and what they answer. */
export type Job =
  /** A picture of a person or a workspace: cut square, small. */
  | { readonly kind: 'square'; readonly bytes: Uint8Array }
  /** A picture, upright, its longer side at most so many pixels. */
  | { readonly kind: 'picture'; readonly path: string; readonly most: number }
  /** How many pages a PDF has. */
  | { readonly kind: 'pages'; readonly path: string }
  /** One of them, from 1, as a picture, and what is written on it where. */
  | { readonly kind: 'page'; readonly path: string; readonly page: number; readonly most: number }
  | { readonly kind: 'words'; readonly path: string; readonly page: number }
  /** The start of a text, or its rows. */
  | { readonly kind: 'text'; readonly path: string }
  | { readonly kind: 'rows'; readonly path: string; readonly separator: string }
  /** All that can be searched in it. */
  | { readonly kind: 'plain'; readonly path: string; readonly media: string }
  /** A picture of ours, with a line written across it. */
  | { readonly kind: 'marked'; readonly bytes: Uint8Array; readonly line: string }

/** A picture (WebP), or something else; or why there is neither. */
export interface Rendered {
  readonly picture?: Uint8Array
  readonly content?: unknown
  readonly fault?: RenderFault
}

export type RenderFault = 'broken' | 'too-large' | 'takes-too-long'
