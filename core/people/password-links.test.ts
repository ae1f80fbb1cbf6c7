import { describe, expect, it } from 'vitest'
import { passwordLinkRefusal, type LinkFor } from './password-links'

const teacher = { id: 't', admin: false }
const nell: LinkFor = { name: 'Nell', hasPassword: false, madeBy: null, putInBy: [null] }

describe('a link for a password', () => {
  it('is the administrator’s for everybody', () => {
    expect(passwordLinkRefusal({ id: 'a', admin: true }, { ...nell, hasPassword: true, putInBy: [] })).toBeNull()
  })
  it('is refused to a teacher if the student has a password, even one the teacher created', () => {
    expect(passwordLinkRefusal(teacher, { ...nell, hasPassword: true, madeBy: 't' })).toMatch(/has a password/)
  })
  it('is a teacher’s for whom the roster or the administrator put into a class of theirs', () => {
    expect(passwordLinkRefusal(teacher, nell)).toBeNull()
    expect(passwordLinkRefusal(teacher, { ...nell, putInBy: ['t', null] })).toBeNull()
  })
  it('is a teacher’s for whom they created', () => {
    expect(passwordLinkRefusal(teacher, { ...nell, madeBy: 't', putInBy: ['t'] })).toBeNull()
  })
  it('is not a teacher’s for whom they or a colleague put in', () => {
    expect(passwordLinkRefusal(teacher, { ...nell, putInBy: ['t'] })).toMatch(/put Nell into your class/)
    expect(passwordLinkRefusal(teacher, { ...nell, madeBy: 'u', putInBy: ['u'] })).not.toBeNull()
    expect(passwordLinkRefusal(teacher, { ...nell, putInBy: [] })).not.toBeNull()
  })
})
