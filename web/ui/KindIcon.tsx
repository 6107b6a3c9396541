import { FileText, Folder, House, List, type LucideIcon, Minus, Paperclip } from 'lucide-react'
import type { NodeKind } from '#core/tree/node.ts'

const icons: Readonly<Record<NodeKind, LucideIcon>> = {
  root: House,
  folder: Folder,
  board: List,
  row: Minus,
  page: FileText,
  file: Paperclip,
}

/** What kind of place it is, with its word for those who do not see the sign. */
export function KindIcon({ kind, isHome = false }: { readonly kind: NodeKind; readonly isHome?: boolean }) {
  const Icon = isHome ? House : icons[kind]
  return (
    <Icon
      className="quiet shrink-0"
      size={15}
      strokeWidth={1.75}
      role="img"
      aria-label={isHome ? 'home' : kind}
    />
  )
}
