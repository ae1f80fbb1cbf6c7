import type { InjectionKey, Ref } from 'vue'

/** The language of the question that is being written: for the spelling check of every field in it. */
export const questionLanguage: InjectionKey<Readonly<Ref<string>>> = Symbol('question language')

const names = new Intl.DisplayNames('en', { type: 'language' })

/** "Dutch" for "nl"; the code itself where it has no name. */
export function languageName(code: string): string {
  try {
    return names.of(code) ?? code
  } catch {
    return code
  }
}
