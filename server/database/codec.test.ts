import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { hashPassword, isPassword } from '../people/password'
import { fromSql, fromSqlOrNever, toSql, toSqlOrNever } from './codec'

describe('instants to the database and back', () => {
  it('keep their milliseconds', () => {
    fc.assert(
      fc.property(
        fc.date({ min: new Date('1971-01-01'), max: new Date('2999-12-31'), noInvalidDate: true }),
        (date) => {
          expect(fromSql(toSql(date.toISOString()))).toBe(date.toISOString())
        },
      ),
    )
  })
  it('"never" is the far end of the calendar, after every instant', () => {
    expect(fromSqlOrNever(toSqlOrNever(null))).toBeNull()
    expect(toSqlOrNever(null) > toSqlOrNever('2999-12-31T23:59:59.999Z')).toBe(true)
    expect(fromSqlOrNever('2030-05-14 19:00:00.000')).toBe('2030-05-14T19:00:00.000Z')
    expect(fromSqlOrNever(null)).toBeNull()
  })
})

describe('passwords', () => {
  it('fit themselves alone, composed or decomposed, and no hash is like another', async () => {
    const [one, two] = [await hashPassword('fair winds é'), await hashPassword('fair winds é')]
    expect(one).not.toBe(two)
    expect(await isPassword('fair winds é', one)).toBe(true)
    expect(await isPassword('fair winds e', one)).toBe(false)
    expect(await isPassword('', one)).toBe(false)
  })
  it.each(['', 'plain', 'scrypt$$', 'bcrypt$a$b'])('a broken hash (%j) fits nothing', async (hash) =>
    expect(await isPassword('x', hash)).toBe(false),
  )
})
