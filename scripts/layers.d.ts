/** Folders that stand on those before them, by where they are. */
export const ordered: Readonly<Record<string, readonly string[]>>
export const foldersIn: (path: string) => string[]
export const layerZones: readonly { readonly target: string; readonly from: readonly string[] }[]
