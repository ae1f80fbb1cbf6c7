import { UnreadableFile } from '../bundle'

/** An objective as files describe it. */
export interface PortableObjective {
  /** What the file calls it: objectives of the file name each other so. */
  name: string
  parent: string | null
  code: string
  title: string
  essential: boolean
  /** Those that have to be reached first. */
  needs: string[]
  /** What a file said beside, that has no place here: it goes out again as it came. */
  kept?: KeptObjective
}

/** Of a CASE package: other associations of an objective, other fields of it and of the document that it came in. */
export interface KeptObjective {
  links: { type: string; to: string; title: string; sequence: number | null }[]
  item: Record<string, unknown>
  document: Record<string, unknown>
}

export const most = 10_000

const deepest = 30
/** Parents before their children; what lies under itself is put at the top. @throws UnreadableFile for a tree that is too deep */
export function withoutCircles(objectives: PortableObjective[]): PortableObjective[] {
  const byName = new Map(objectives.map((each) => [each.name, each]))
  const isCircular = (start: PortableObjective): boolean => {
    const seen = new Set<string>()
    for (
      let at: PortableObjective | undefined = start;
      at;
      at = at.parent === null ? undefined : byName.get(at.parent)
    ) {
      if (seen.has(at.name)) return true
      seen.add(at.name)
      if (seen.size > deepest)
        throw new UnreadableFile(`These objectives lie more than ${deepest} deep within one another.`)
    }
    return false
  }
  const sound = objectives.map((each) => (isCircular(each) ? { ...each, parent: null } : each))
  const childrenOf = new Map<string | null, PortableObjective[]>()
  for (const each of sound) childrenOf.set(each.parent, [...(childrenOf.get(each.parent) ?? []), each])
  const under = (parent: string | null): PortableObjective[] =>
    (childrenOf.get(parent) ?? []).flatMap((each) => [each, ...under(each.name)])
  return under(null)
}
