/** What a process remembers of the database: the latest entries, up to a number of them. */
export class Remembered<V> {
  private static readonly all = new Set<Remembered<unknown>>()
  private readonly entries = new Map<string, V>()

  constructor(private readonly most: number) {
    Remembered.all.add(this)
  }

  /** Forgets everything, everywhere: another database is another memory. */
  static forgetAll(): void {
    for (const each of Remembered.all) each.entries.clear()
  }

  get(key: string): V | undefined {
    return this.entries.get(key)
  }

  set(key: string, value: V): void {
    this.entries.delete(key)
    this.entries.set(key, value)
    if (this.entries.size > this.most) this.entries.delete(this.entries.keys().next().value!)
  }

  delete(key: string): void {
    this.entries.delete(key)
  }

  clear(): void {
    this.entries.clear()
  }
}
