import type { KeptVisit } from '@/shared/kept/store'
import { say } from '@/words'

/** "3.4 MB". */
export const megabytes = (bytes: number) => `${(bytes / 1_048_576).toFixed(1)} MB`

/**
 * Why a visit that came along is not what the server would say today; '' where it is, or nobody knows. engine: which lies here;
 * build: of the pages that the server speaks for.
 */
export function olderSays(one: Pick<KeptVisit, 'engine' | 'build'>, engine: string, build: string): string {
  if (one.engine && engine && one.engine !== engine) return say('room.otherEngine')
  return build && one.build && one.build !== build ? say('room.renewed') : ''
}

/** Whether the browser keeps what is here for as long as nobody takes it away; null where it does not say. */
export async function storedFor(ask: boolean): Promise<boolean | null> {
  if (!navigator.storage?.persisted) return null
  if (ask && !(await navigator.storage.persisted())) return navigator.storage.persist()
  return navigator.storage.persisted()
}
