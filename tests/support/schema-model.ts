import { SaxesParser } from 'saxes'

/** An element as it stands in a file, with its namespace, and with its attributes by the names that are written. */
export interface Written {
  name: string
  namespace: string
  attributes: Record<string, string>
  children: (Written | string)[]
}

/** XML with its namespaces. */
export function written(source: string): Written {
  const parser = new SaxesParser({ xmlns: true })
  const top: Written = { name: '', namespace: '', attributes: {}, children: [] }
  const open = [top]
  parser.on('opentag', ({ name, uri, attributes }) => {
    const made: Written = {
      name,
      namespace: uri,
      attributes: Object.fromEntries(
        Object.values(attributes)
          .filter((each) => each.name !== 'xmlns' && each.prefix !== 'xmlns')
          .map((each) => [each.name, each.value]),
      ),
      children: [],
    }
    open.at(-1)!.children.push(made)
    open.push(made)
  })
  parser.on('closetag', () => void open.pop())
  parser.on('text', (text) => void open.at(-1)!.children.push(text))
  parser.on('error', (error) => {
    throw error
  })
  parser.write(source).close()
  return top.children.find((child) => typeof child !== 'string')!
}

export const isWritten = (child: Written | string): child is Written => typeof child !== 'string'

interface Model {
  attributes: Map<string, { type: string; needed: boolean }>
  content: RegExp
  mixed: boolean
}
export type Models = ReadonlyMap<string, Model>

const number = String.raw`-?(\d+(\.\d+)?|\.\d+)([eE][-+]?\d+)?`
const types: Record<string, RegExp> = {
  id: /^[A-Za-z_][A-Za-z0-9_.-]*$/,
  ids: /^[A-Za-z_][A-Za-z0-9_.-]*( [A-Za-z_][A-Za-z0-9_.-]*)*$/,
  text: /^[^]*$/,
  label: /^[^]{1,256}$/,
  bool: /^(true|false)$/,
  int: /^\d+$/,
  float: new RegExp(`^${number}$`),
  uri: /^[^\s<>"{}|\\^`]+$/,
  size: /^\d+%?$/,
  coords: new RegExp(`^${number}%?(,${number}%?)*$`),
  views:
    /^(author|candidate|proctor|scorer|testConstructor|tutor)( (author|candidate|proctor|scorer|testConstructor|tutor))*$/,
  // A number, or the value of a variable of the template.
  number: new RegExp(`^(${number}|\\{?[A-Za-z_][A-Za-z0-9_.-]*\\}?)$`),
  figures: /^(\d+|\{?[A-Za-z_][A-Za-z0-9_.-]*\}?)$/,
  tolerances: new RegExp(`^(${number}|[A-Za-z_][A-Za-z0-9_.-]*)( (${number}|[A-Za-z_][A-Za-z0-9_.-]*))?$`),
}

/** How a version spells names. */
export interface Spelling {
  element(name: string): string
  attribute(name: string): string
}

/** A content model as a pattern over names that are each followed by a space. */
const pattern = (content: string, spelled: Spelling): RegExp =>
  new RegExp(
    `^${content
      .replaceAll('#', '')
      .replaceAll('(', '(?:')
      .replace(/[A-Za-z]\w*/g, (name) => `(?:${spelled.element(name)} )`)
      .replaceAll(',', '|')
      .replace(/ (?!\))/g, '')}$`,
  )

function attributesOf(written: string, spelled: Spelling): Model['attributes'] {
  return new Map(
    written.split(/\s+/).flatMap((each) => {
      const [, name, type, needed] = /^(.+):(.+?)(!?)$/.exec(each) ?? []
      return name ? [[spelled.attribute(name), { type: type!, needed: needed === '!' }] as const] : []
    }),
  )
}

/**
 * Models written as lines (`name | attributes | content`).
 * @param groups what `%name` stands for
 */
export function modelsOf(lines: string, groups: Record<string, string>, spelled: Spelling): Models {
  const filled = (text: string): string =>
    text.includes('%') ? filled(text.replace(/%(\w+)/g, (_whole, name: string) => groups[name]!)) : text
  return new Map(
    lines
      .split('\n')
      .filter((line) => line.trim())
      .map((line) => {
        const [name, attributes, content] = line.split('|').map((part) => part.trim()) as [string, string, string]
        const whole = filled(content)
        return [
          spelled.element(name),
          {
            mixed: whole.includes('#'),
            content: pattern(whole, spelled),
            attributes: attributesOf(attributes, spelled),
          },
        ]
      }),
  )
}

/** What of an element and all within it the models do not allow, as sentences. @param outside names that are not looked into */
export function strays(root: Written, models: Models, outside: ReadonlySet<string> = new Set()): string[] {
  const found: string[] = []
  const look = (element: Written, path: string): void => {
    if (outside.has(element.name)) return
    const here = `${path}/${element.name}`
    const model = models.get(element.name)
    if (!model) {
      found.push(`${here}: no such element`)
      return
    }
    for (const [name, value] of Object.entries(element.attributes)) {
      const known = model.attributes.get(name)
      if (!known) found.push(`${here}: no attribute ${name}`)
      else if (!(known.type in types ? types[known.type]!.test(value) : known.type.split('/').includes(value)))
        found.push(`${here}: ${name}="${value.slice(0, 40)}" is no ${known.type}`)
    }
    for (const [name, { needed }] of model.attributes)
      if (needed && !(name in element.attributes)) found.push(`${here}: ${name} is missing`)
    const inner = element.children.filter(isWritten)
    const names = inner.map((child) => `${child.name} `).join('')
    if (!model.content.test(names)) found.push(`${here}: holds ${names.trim().slice(0, 120) || 'nothing'}`)
    if (!model.mixed && element.children.some((child) => !isWritten(child) && child.trim() !== ''))
      found.push(`${here}: text stands here`)
    inner.forEach((child) => look(child, here))
  }
  look(root, '')
  return found
}
