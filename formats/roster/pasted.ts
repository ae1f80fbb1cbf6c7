import { alikeName, cleanName, nameFault } from '../../core/people'
import { readAddress } from './address'

/** A line of a list that somebody pasted, as it is read. */
export interface PastedLine {
  line: number
  name: string
  email: string | null
  /** Why it is not taken, in a sentence. */
  fault: string | null
}

export const mostLines = 2000

/** "petra.lund@gannet.example" has "Petra Lund" in it. */
const nameFromAddress = (address: string) =>
  address
    .split('@')[0]!
    .split(/[._+-]+/)
    .filter((part) => /\p{L}/u.test(part))
    .map((part) => part[0]!.toUpperCase() + part.slice(1))
    .join(' ')

/** "Lund, Petra" is Petra Lund; a line of several commas is left as it is, and told. */
function inOrder(name: string): string {
  const parts = name.split(',').map((part) => part.trim())
  return parts.length === 2 && parts[0] && parts[1] ? `${parts[1]} ${parts[0]}` : name
}

function readLine(text: string): Omit<PastedLine, 'line'> {
  // "Petra Lund <petra@x.example>", or an address by itself.
  const whole = readAddress(text)
  if (whole) return named(whole.name || nameFromAddress(whole.address), whole.address)
  // Cells of a spreadsheet, or a name and an address in whatever order.
  const cells = text.split(/[\t;]|,(?=[^,]*@)|(?<=@[^,]*),/).map((cell) => cell.trim())
  const at = cells.findIndex((cell) => readAddress(cell))
  const rest = cells.filter((cell, i) => i !== at && cell)
  if (at >= 0) return named(rest.join(' ') || nameFromAddress(cells[at]!), readAddress(cells[at]!)!.address)
  if (text.includes('@'))
    return { name: cleanName(text), email: null, fault: 'The address in this line cannot be read.' }
  return named(rest.length > 1 ? rest.join(' ') : inOrder(text), null)
}

function named(name: string, email: string | null): Omit<PastedLine, 'line'> {
  const clean = cleanName(inOrder(name))
  const fault = nameFault(clean) ?? (clean.includes(',') ? 'Write one person a line: this looks like several.' : null)
  return { name: clean, email, fault }
}

/**
 * People of a list as it was pasted: a name, an address or both a line. What stands twice is told at its second place.
 * Lines beyond the most that are read are not read, and that is told with the last.
 */
export function readPasted(text: string): PastedLine[] {
  const lines = text
    .split(/\r\n|\r|\n/)
    .map((line, i) => ({ text: line.trim(), line: i + 1 }))
    .filter((each) => each.text)
  const seen = new Set<string>()
  return lines.slice(0, mostLines).map(({ text: written, line }, i) => {
    const read = readLine(written)
    const key = read.email ?? `name ${alikeName(read.name)}`
    const twice = !read.fault && seen.has(key)
    seen.add(key)
    const cut = i === mostLines - 1 && lines.length > mostLines
    return {
      line,
      ...read,
      fault: cut
        ? `Only ${mostLines} lines are read at once.`
        : twice
          ? 'This one stands in the list already.'
          : read.fault,
    }
  })
}
