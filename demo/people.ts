/** The demo school's people: all made up. */
export const teachers = [
  ['p-maren', 'Maren Holt'],
  ['p-idris', 'Idris Quayle'],
] as const

export const classes = [
  {
    id: 'c-tuesday',
    name: 'Tuesday evening',
    students: [
      'Petra Lund',
      'Oskar Brandt',
      'Nell Ashdown',
      'Tomas Velling',
      'Ines Corrado',
      'Wyn Parrish',
      'Hedda Moe',
      'Jonas Tarn',
      'Alba Quist',
      'Rufus Denby',
      'Mika Soler',
      'Carys Bowe',
      'Elif Doran',
      'Silas Penn',
    ],
  },
  {
    id: 'c-saturday',
    name: 'Saturday morning',
    students: [
      'Greta Vance',
      'Amos Lidell',
      'Thea Marsh',
      'Pavel Roke',
      'Juno Hale',
      'Edda Finch',
      'Kit Sorrel',
      'Lotte Brisk',
      'Bram Oakes',
      'Vera Nilsund',
      'Dario Fenn',
    ],
  },
] as const

export const accommodations: Record<string, { factor: number; extraMinutes: number; stretchWindow: boolean }> = {
  'Petra Lund': { factor: 1.5, extraMinutes: 0, stretchWindow: false },
  'Juno Hale': { factor: 1.25, extraMinutes: 5, stretchWindow: true },
}

export const personId = (name: string) => `p-${name.toLowerCase().replace(/[^a-z]+/g, '-')}`
export const email = (name: string) => `${name.toLowerCase().replace(/[^a-z]+/g, '.')}@gannet.example`
export const demoPassword = 'fair winds'
