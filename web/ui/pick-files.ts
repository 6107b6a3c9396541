/** Lets somebody pick files from the disk; none where they leave it. Has to be called while they press something. */
export function pickFiles(label: string): Promise<readonly File[]> {
  const input = document.createElement('input')
  input.type = 'file'
  input.multiple = true
  input.hidden = true
  input.setAttribute('aria-label', label)
  document.body.append(input)
  return new Promise(resolve => {
    const end = (files: readonly File[]) => {
      input.remove()
      resolve(files)
    }
    input.addEventListener('change', () => end([...(input.files ?? [])]), { once: true })
    input.addEventListener('cancel', () => end([]), { once: true })
    input.click()
  })
}
