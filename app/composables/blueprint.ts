import { blankBlueprint, held, type Blueprint, type Cell, type Count, type Sort } from '~~/core/blueprint'

/** What a line of a blueprint asks for beside how many. */
export type Asked = Pick<Cell, 'objective' | 'kind' | 'difficulty' | 'level'>
export const anything: Asked = { objective: null, kind: null, difficulty: null, level: null }

const isLine = (cell: Cell, asked: Asked) =>
  cell.objective === asked.objective &&
  cell.kind === asked.kind &&
  cell.difficulty === asked.difficulty &&
  cell.level === asked.level

/** A blueprint under the hands of a teacher, line by line. */
export function useBlueprint(title: () => string) {
  const blueprint = ref<Blueprint>(blankBlueprint(title()))
  const lineOf = (asked: Asked) => blueprint.value.cells.find((cell) => isLine(cell, asked)) ?? null

  /** How many of a sort; null takes the line out. */
  function setLine(asked: Asked, count: Count | null) {
    const { cells } = blueprint.value
    const known = lineOf(asked)
    const next = (Math.max(0, ...cells.map(({ id }) => Number(/^l(\d+)$/.exec(id)?.[1] ?? 0))) || 0) + 1
    blueprint.value = {
      ...blueprint.value,
      cells: !count
        ? cells.filter((cell) => cell !== known)
        : known
          ? cells.map((cell) => (cell === known ? { ...cell, count } : cell))
          : [...cells, { id: `l${next}`, ...asked, count }],
    }
  }
  const set = (values: Partial<Blueprint>) => {
    blueprint.value = { ...blueprint.value, ...values }
  }
  return { blueprint, lineOf, setLine, set }
}

/** How many questions of a sort the part of the bank holds. */
export const heldOf = (asked: Asked, sorts: readonly Sort[]): number =>
  held({ id: 'x', ...asked, count: { atLeast: 0, atMost: null } }, sorts)
