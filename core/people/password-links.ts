/** Who asks for a link with which somebody chooses a password. */
export interface LinkAsker {
  id: string
  /** They are the administrator of the school. */
  admin: boolean
}

/** Whom the link is for. */
export interface LinkFor {
  name: string
  /** They have chosen a password before. */
  hasPassword: boolean
  /** The teacher who created them; null where roster or administrator did, or they themself. */
  madeBy: string | null
  /** Who put them into each class that the asker teaches; null for roster, administrator, and they themself. */
  putInBy: readonly (string | null)[]
}

/**
 * Whether somebody may make a link with which a person chooses a password. Whoever has the link comes in as that person,
 * so a teacher who put them into a class on their own does not get one, and nobody but the administrator gets one for
 * somebody who has a password.
 * @returns null where they may, else why not, in a sentence
 */
export function passwordLinkRefusal(asker: LinkAsker, { name, hasPassword, madeBy, putInBy }: LinkFor): string | null {
  if (asker.admin) return null
  if (hasPassword)
    return `${name} has a password. Only the administrator of the school can make a link for a new one. ${name} can also use “Forgotten your password?”.`
  if (madeBy === asker.id || putInBy.includes(null)) return null
  return `You put ${name} into your class yourself. The link is made by whoever created them, or by the administrator of the school.`
}
