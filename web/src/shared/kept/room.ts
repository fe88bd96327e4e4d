/** "3.4 MB". */
export const megabytes = (bytes: number) => `${(bytes / 1_048_576).toFixed(1)} MB`

/** Whether the browser keeps what is here for as long as nobody takes it away; null where it does not say. */
export async function storedFor(ask: boolean): Promise<boolean | null> {
  if (!navigator.storage?.persisted) return null
  if (ask && !(await navigator.storage.persisted())) return navigator.storage.persist()
  return navigator.storage.persisted()
}
