/** Puts a text where it can be pasted from, and tells whether that worked: a browser may keep pages from it. */
export async function isCopied(text: string): Promise<boolean> {
  try {
    await navigator.clipboard.writeText(text)
    return true
  } catch {
    return false
  }
}
