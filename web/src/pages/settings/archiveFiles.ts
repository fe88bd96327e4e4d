import { unzip } from 'fflate'

/** An archive to be taken in: a file of its own, or one of those in a crew's. */
export interface ArchiveFile {
  name: string
  blob: Blob
}

const INNER = /\.gorvant\.zip$/

/** Names in a zip, without unpacking it; null for what is none. */
function named(bytes: Uint8Array): Promise<string[] | null> {
  const names: string[] = []
  const filter = (one: { name: string }) => {
    names.push(one.name)
    return false
  }
  return new Promise((done) => unzip(bytes, { filter }, (error) => done(error ? null : names)))
}

/** The archives that a chosen file is: itself, or all those of a crew's export. What is no zip stays as it is: what is
 *  wrong with it is the server's to say. */
export async function archivesOf(file: File): Promise<ArchiveFile[]> {
  const itself = [{ name: file.name, blob: file }]
  const bytes = new Uint8Array(await file.arrayBuffer())
  const names = await named(bytes)
  if (!names?.length || !names.every((name) => INNER.test(name))) return itself
  return new Promise((done) =>
    unzip(bytes, (error, files) =>
      done(
        error
          ? itself
          : Object.entries(files).map(([name, content]) => ({ name, blob: new Blob([content as BlobPart]) })),
      ),
    ),
  )
}
