/** Kinds as people read them, apart from the kinds themselves: a page that only names them need not load them. */
export const kindLabels = {
  choice: 'Choice',
  choices: 'Choices',
  trueFalse: 'True/false',
  yesNo: 'Yes/no',
  number: 'Number',
  text: 'Text',
  gaps: 'Gaps',
  matching: 'Matching',
  sorting: 'Sorting',
  ordering: 'Ordering',
  spot: 'Spot on a picture',
  written: 'Written answer',
  short: 'Short answer by hand',
  recording: 'Recording',
} as const
