import type { Instant } from '../../core/kit/time'
import type { Database } from '../database/database'
import type { QuizRow } from '../database/tables'
import { comeHere, goAway, stayHere, whoIsHere, type Here } from '../domain/quizzes/presence'
import type { Person } from '../people/people'

/** What a page that has a quiz open is told; `ended` where it may not be told any more, `closing` where this process stops. */
export type News = { revision: number } | { here: Here[] } | { ended: true } | { closing: true }

interface Follower {
  quiz: string
  page: string
  person: Person
  tell: (news: News) => void
  /** Whether they may still be told: their session, role and right stand. */
  mayHear: () => Promise<boolean>
  revision: number
  here: string
}

const every = 250
/** Turns after which pages are renewed and rights asked again. */
const seldom = 20

/**
 * What happens in quizzes that are open in pages of this process: looked up for all of them at once, several times a
 * second while somebody listens, so that it does not matter which process a colleague's edit came to.
 */
export class QuizFeed {
  private followers: readonly Follower[] = []
  private timer: NodeJS.Timeout | undefined
  private turn = 0

  constructor(
    private readonly database: () => Database,
    private readonly now: () => Instant,
    private readonly pause = every,
  ) {}

  /**
   * Tells a page until what is returned is called, or until it may not hear any more: that is asked again every five
   * seconds.
   */
  async follow(
    quiz: string,
    page: string,
    person: Person,
    mayHear: Follower['mayHear'],
    tell: Follower['tell'],
  ): Promise<() => void> {
    await comeHere(this.database(), person, quiz, page, null, this.now())
    const follower: Follower = { quiz, page, person, tell, mayHear, revision: -1, here: '' }
    this.followers = [...this.followers, follower]
    this.timer ??= setTimeout(() => void this.look(), 0)
    return () => {
      this.leave(follower)
    }
  }

  private leave(follower: Follower): void {
    if (!this.followers.includes(follower)) return
    this.followers = this.followers.filter((each) => each !== follower)
    // A page that came back before its old line was given up stays where it is.
    if (!this.followers.some(({ quiz, page }) => quiz === follower.quiz && page === follower.page))
      goAway(this.database(), follower.quiz, follower.page).catch(() => {
        /* It goes by itself when it is not renewed. */
      })
  }

  private async look(): Promise<void> {
    try {
      await this.tellAll()
      if (this.turn++ % seldom === 0) await this.renew()
    } catch {
      /* The database is away: the next turn tells what happened meanwhile. */
    }
    this.timer = this.followers.length ? setTimeout(() => void this.look(), this.pause) : undefined
  }

  private async tellAll(): Promise<void> {
    const quizzes = [...new Set(this.followers.map(({ quiz }) => quiz))]
    if (!quizzes.length) return
    const db = this.database()
    const [rows, here] = await Promise.all([
      db.rows<Pick<QuizRow, 'id' | 'revision'>>('SELECT id, revision FROM quiz WHERE id IN (?)', [quizzes]),
      whoIsHere(db, quizzes, this.now()),
    ])
    const revisions = new Map(rows.map((row) => [row.id, row.revision]))
    for (const follower of this.followers) {
      const revision = revisions.get(follower.quiz) ?? follower.revision
      if (revision > follower.revision) {
        follower.revision = revision
        follower.tell({ revision })
      }
      const others = (here.get(follower.quiz) ?? []).filter(({ page }) => page !== follower.page)
      const words = JSON.stringify(others)
      if (words !== follower.here) {
        follower.here = words
        follower.tell({ here: others })
      }
    }
  }

  /** Pages stay as long as they listen; who may not hear any more is told nothing more. */
  private async renew(): Promise<void> {
    const db = this.database()
    await stayHere(
      db,
      this.followers.map(({ quiz, page }) => [quiz, page] as const),
      this.now(),
    )
    await Promise.all(
      this.followers.map(async (follower) => {
        if (await follower.mayHear()) return
        follower.tell({ ended: true })
        this.leave(follower)
      }),
    )
  }

  /** Nobody is told anything more. */
  close(): void {
    clearTimeout(this.timer)
    this.timer = undefined
    for (const follower of this.followers) follower.tell({ closing: true })
    this.followers = []
  }
}
