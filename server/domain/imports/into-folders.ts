import type { Db } from '../../database/database'
import { putInto } from '../bank/describing/folders'
import { newId } from '../ids'

interface Folder {
  id: string
  parent_id: string | null
  name: string
}

const longest = 120
const keyOf = (parent: string | null, name: string) => `${parent ?? ''}/${name.toLowerCase()}`

/**
 * Puts new questions where their file says: folders by their names from the top. Those that are missing are made.
 * @returns the ids of the folders that were made
 */
export async function putIntoFolders(
  db: Db,
  school: string,
  questions: readonly { id: string; item: { folder: readonly string[] } }[],
): Promise<string[]> {
  const rows = await db.rows<Folder>('SELECT id, parent_id, name FROM folder WHERE school_id = ?', [school])
  const known = new Map(rows.map((row) => [keyOf(row.parent_id, row.name), row.id]))
  const made: Folder[] = []
  const folderAt = (path: readonly string[]) =>
    path.reduce<string | null>((parent, raw) => {
      const name = raw.slice(0, longest)
      const there = known.get(keyOf(parent, name))
      if (there) return there
      const folder = { id: newId(), parent_id: parent, name }
      made.push(folder)
      known.set(keyOf(parent, name), folder.id)
      return folder.id
    }, null)
  const placed = questions.map(({ id, item }) => ({ question: id, folder: folderAt(item.folder) }))
  if (made.length)
    await db.run('INSERT INTO folder (id, school_id, parent_id, name) VALUES ?', [
      made.map((folder) => [folder.id, school, folder.parent_id, folder.name]),
    ])
  await putInto(
    db,
    placed.filter(({ folder }) => folder !== null),
  )
  return made.map(({ id }) => id)
}
