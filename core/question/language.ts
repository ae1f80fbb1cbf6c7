/** Codes of languages as questions name them: a language of BCP 47, with what may follow it (en, nl, fr-CA). */
export const languageCode = /^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$/
