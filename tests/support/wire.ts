import { connect, createServer, type Server, type Socket } from 'node:net'

type Way = 'open' | 'refused' | 'silent'

/** The wire between the application and its database, which a test can cut, silence, or let through. */
export class Wire {
  private way: Way = 'open'
  private readonly pairs = new Set<[here: Socket, there: Socket]>()
  private left = Infinity
  private lets = false
  /** How many messages have been sent to the database since `arm`. */
  sent = 0
  /** A cut has happened since `arm`. */
  cut = false

  private constructor(
    private readonly server: Server,
    readonly url: string,
  ) {}

  /** @param url of the database itself */
  static async to(url: string): Promise<Wire> {
    const target = new URL(url)
    const server = createServer()
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done))
    const mine = new URL(url)
    mine.port = String((server.address() as { port: number }).port)
    const wire = new Wire(server, mine.href)
    server.on('connection', (here) => {
      wire.join(here, Number(target.port))
    })
    return wire
  }

  private join(here: Socket, port: number): void {
    here.on('error', () => {})
    if (this.way === 'refused') {
      here.resetAndDestroy()
      return
    }
    const there = connect(port, '127.0.0.1')
    there.on('error', () => {})
    const pair: [Socket, Socket] = [here, there]
    this.pairs.add(pair)
    const end = () => {
      this.pairs.delete(pair)
      here.destroy()
      there.destroy()
    }
    here.on('close', end)
    there.on('close', end)
    here.on('data', (chunk) => {
      if (this.way === 'silent') return
      this.sent++
      if (--this.left > 0) there.write(chunk)
      else {
        this.left = Infinity
        this.cut = true
        // Either the database never hears of it, or nobody hears its answer.
        if (this.lets) {
          there.removeAllListeners('data')
          there.write(chunk, () => setTimeout(() => here.resetAndDestroy(), 30))
        } else here.resetAndDestroy()
      }
    })
    there.on('data', (chunk) => {
      if (this.way !== 'silent') here.write(chunk)
    })
  }

  /** Cuts the connection at the nth message from now. @param lets the message reaches the database, its answer is lost */
  arm(nth: number, lets: boolean): void {
    this.left = nth
    this.lets = lets
    this.sent = 0
    this.cut = false
  }

  disarm(): void {
    this.left = Infinity
  }

  /** @param way what becomes of what is sent from now on; connections that stand are broken when it is refused */
  set(way: Way): void {
    this.way = way
    if (way === 'refused') for (const [here] of this.pairs) here.resetAndDestroy()
    // Those that have lost messages cannot be understood any more.
    if (way === 'open') for (const [here, there] of this.pairs) if (!here.writable || !there.writable) here.destroy()
  }

  /** Breaks every connection that stands; new ones are let through. */
  cutNow(): void {
    for (const [here] of this.pairs) here.resetAndDestroy()
  }

  async stop(): Promise<void> {
    for (const [here] of this.pairs) here.destroy()
    await new Promise((done) => this.server.close(done))
  }
}
