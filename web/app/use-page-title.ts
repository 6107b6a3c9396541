import { useEffect } from 'react'

/** The title of the tab says where one is: the heading of the page, and of the panel that is open, then the workspace. */
export function usePageTitle(workspace: string | undefined): void {
  useEffect(() => {
    if (workspace === undefined) return undefined
    const tell = () => {
      const text = (selector: string) => document.querySelector(selector)?.textContent ?? ''
      const parts = [text('aside h2[data-panel]'), text('main h1'), workspace, 'Noskel']
      const title = parts.filter(Boolean).join(' · ')
      if (document.title !== title) document.title = title
    }
    tell()
    const observer = new MutationObserver(tell)
    observer.observe(document.body, { childList: true, subtree: true, characterData: true })
    return () => observer.disconnect()
  }, [workspace])
}
