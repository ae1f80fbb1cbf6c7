import { onStage } from './stage'

/**
 * What a process remembers of the database: the latest entries, up to a number of them. What is played on a stage is
 * remembered for as long as it is played.
 */
export class Remembered<V> {
  private static readonly all = new Set<Remembered<unknown>>()
  private readonly entries = new Map<string, V>()

  /**
   * @param offStage what is worked out on a stage is remembered like all else: it hangs on nothing that was done there
   */
  constructor(
    private readonly most: number,
    private readonly offStage = false,
  ) {
    Remembered.all.add(this)
  }

  /** Forgets everything, everywhere: another database is another memory. */
  static forgetAll(): void {
    for (const each of Remembered.all) each.entries.clear()
  }

  private get staged(): Map<string, V> | undefined {
    const stage = this.offStage ? undefined : onStage()
    if (!stage) return undefined
    const known = stage.remembered.get(this) as Map<string, V> | undefined
    if (known) return known
    const made = new Map<string, V>()
    stage.remembered.set(this, made)
    return made
  }

  get(key: string): V | undefined {
    return this.staged?.get(key) ?? this.entries.get(key)
  }

  set(key: string, value: V): void {
    const { staged } = this
    if (staged) {
      staged.set(key, value)
      return
    }
    this.entries.delete(key)
    this.entries.set(key, value)
    if (this.entries.size > this.most) this.entries.delete(this.entries.keys().next().value!)
  }

  delete(key: string): void {
    ;(this.staged ?? this.entries).delete(key)
  }

  clear(): void {
    this.entries.clear()
  }
}
