import { execFileSync, spawn, type ChildProcess } from 'node:child_process'
import { chmodSync, mkdtempSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { join } from 'node:path'

const program = join(import.meta.dirname, '../../bin/alpenglow')

/** A server of the demo's school, on a free port, with a database of its own. */
export class DemoServer {
  readonly url: string
  /** Where its database is. */
  database = ''
  private readonly port: number
  private readonly data: string | null
  private child: ChildProcess | null = null
  /** What the server has logged since it was made, and said to whoever started it. */
  log = ''
  said = ''

  private constructor(port: number, data: string | null) {
    this.port = port
    this.data = data
    this.url = `http://127.0.0.1:${port}`
  }

  /** On a copy of the demo's database, in the cluster of all tests. */
  static async start(): Promise<DemoServer> {
    const server = new DemoServer(await freePort(), null)
    server.database = newDatabase('demo')
    await server.run()
    return server
  }

  /** On a database without tables, as a school starts it. */
  static async bare(): Promise<DemoServer> {
    const server = new DemoServer(await freePort(), null)
    server.database = newDatabase('template1')
    await server.run()
    return server
  }

  /** The whole demo from nothing, as somebody tries it: with its own PostgreSQL, made-up data and mailbox. */
  static async fromNothing(): Promise<DemoServer> {
    const server = new DemoServer(await freePort(), mkdtempSync('/var/tmp/alpenglow-e2e-'))
    // PostgreSQL may run as another user, who must be able to reach its folder.
    chmodSync(server.data!, 0o755)
    await server.run()
    server.database = /postgres\S+/.exec(server.said)![0]
    return server
  }

  async run() {
    const child = spawn(program, [this.data === null ? 'serve' : 'demo'], {
      env: {
        ...process.env,
        ALPENGLOW_ADDR: `127.0.0.1:${this.port}`,
        ALPENGLOW_DATABASE_URL: this.database,
        ALPENGLOW_DATA: this.data ?? '',
        ALPENGLOW_LOG: 'info',
        ALPENGLOW_PACE: '0.1',
      },
      stdio: ['ignore', 'pipe', 'pipe'],
    })
    child.stderr.on('data', (text: Buffer) => (this.log += text.toString()))
    child.stdout.on('data', (text: Buffer) => (this.said += text.toString()))
    this.child = child
    await this.ready(child)
  }

  private async ready(child: ChildProcess) {
    for (let i = 0; i < 600; i++) {
      if (child.exitCode !== null) throw new Error(`the server ended: ${this.log}`)
      const ready = await fetch(`${this.url}/readyz`).catch(() => null)
      if (ready?.ok) return
      await new Promise((resolve) => setTimeout(resolve, 50))
    }
    throw new Error(`the server is not ready: ${this.log}`)
  }

  /** Whether the process is gone. */
  get ended() {
    return this.child === null || this.child.exitCode !== null || this.child.signalCode !== null
  }

  /** Ends the server in good order, as Ctrl-C does; run starts it again with the same data. */
  async stop() {
    const child = this.child
    if (!child || child.exitCode !== null) return
    const ended = new Promise((resolve) => child.once('exit', resolve))
    child.kill('SIGINT')
    await ended
  }

  async remove() {
    await this.stop()
    if (this.data) rmSync(this.data, { recursive: true, force: true })
  }
}

let databases = 0

/** Makes a database like another one of the cluster of all tests, and gives its address. */
function newDatabase(template: string): string {
  const address = new URL(process.env.ALPENGLOW_TEST_CLUSTER!)
  const name = `browser_${process.pid}_${databases++}`
  address.pathname = '/postgres'
  execFileSync('psql', [String(address), '-qc', `CREATE DATABASE ${name} TEMPLATE ${template}`])
  address.pathname = `/${name}`
  return String(address)
}

const PORTS = 1000
let asked = 0

/**
 * A port that nothing listens on. It is below those that the system gives to connections that go out, and of this
 * worker's own: nobody takes it before the server is up.
 */
async function freePort(): Promise<number> {
  const from = 20_000 + PORTS * Number(process.env.TEST_PARALLEL_INDEX ?? 9)
  for (let tries = 0; tries < PORTS; tries++) {
    const port = from + (asked++ % PORTS)
    if (await isFree(port)) return port
  }
  throw new Error(`no port is free from ${from} on`)
}

function isFree(port: number): Promise<boolean> {
  return new Promise((resolve) => {
    const probe = createServer()
    probe.once('error', () => resolve(false))
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(true)))
  })
}
