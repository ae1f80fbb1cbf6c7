/** A plain roster: so many students, each in one of the classes. */
export const rosterFile = (rows: readonly string[], name = 'roster.csv') => ({
  name,
  base64: Buffer.from(['name,email,class,role', ...rows].join('\n')).toString('base64'),
})
/** Rows of a big school: `n` students, 25 a class. */
export const manyRows = (n: number): string[] =>
  Array.from({ length: n }, (_, i) => `Student ${i},student.${i}@many.example,Class ${Math.floor(i / 25)},student`)
