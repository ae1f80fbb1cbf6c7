/** Kinds as people read them, apart from the kinds themselves: a page that only names them need not load them. */
export const kindLabels = { choice: 'Choice', choices: 'Choices', trueFalse: 'True/false', number: 'Number', text: 'Text' } as const
