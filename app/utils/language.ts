import type { InjectionKey, Ref } from 'vue'

export { languageName } from '~~/core/question/language-name'

/** The language of the question that is being written: for the spelling check of every field in it. */
export const questionLanguage: InjectionKey<Readonly<Ref<string>>> = Symbol('question language')
