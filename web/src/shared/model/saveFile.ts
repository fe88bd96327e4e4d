/** Hands the browser a file to keep. */
export function saveFile(name: string, content: string | Blob, type = 'text/plain') {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(content instanceof Blob ? content : new Blob([content], { type }))
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000)
}
