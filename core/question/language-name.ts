// Apart from the schemas: the page of a sitting names languages and loads none of those.
const names = new Intl.DisplayNames('en', { type: 'language' })

/** "Dutch" for "nl"; the code itself where it has no name. */
export function languageName(code: string): string {
  try {
    return names.of(code) ?? code
  } catch {
    return code
  }
}
