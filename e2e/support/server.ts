import { execFileSync, spawn, type ChildProcess } from 'node:child_process'
import { chmodSync, mkdtempSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { join } from 'node:path'

const program = join(import.meta.dirname, '../../bin/alpenglow')

/** The demo, started on free ports with a database of its own. */
export class DemoServer {
  readonly url: string
  private readonly port: number
  private readonly data: string
  private child: ChildProcess | null = null
  /** What the server has logged since it was made, and said to whoever started it. */
  log = ''
  said = ''

  private constructor(port: number, data: string) {
    this.port = port
    this.data = data
    this.url = `http://127.0.0.1:${port}`
  }

  static async start(): Promise<DemoServer> {
    const server = new DemoServer(await freePort(), mkdtempSync('/var/tmp/alpenglow-e2e-'))
    // PostgreSQL may run as another user, who must be able to reach its folder.
    chmodSync(server.data, 0o755)
    // The demo is made once for all tests; each has a copy of its own.
    const made = process.env.DEMO_MADE
    if (made) execFileSync('cp', ['-a', `${made}/.`, server.data])
    await server.run()
    return server
  }

  /** Makes a demo that others are copied from, and gives its folder. */
  static async make(): Promise<string> {
    const server = await DemoServer.start()
    await server.stop()
    return server.data
  }

  async run() {
    const child = spawn(program, ['demo'], {
      env: {
        ...process.env,
        ALPENGLOW_ADDR: `127.0.0.1:${this.port}`,
        ALPENGLOW_DATA: this.data,
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

  /** A second server beside the demo, on an empty database of the same PostgreSQL, as a school starts it. */
  async besides(): Promise<{ url: string; said: () => string; stop: () => void }> {
    const first = /postgres\S+/.exec(this.said)![0]
    const database = new URL(first)
    database.pathname = '/besides'
    execFileSync('psql', [first, '-qc', 'CREATE DATABASE besides'])
    const port = await freePort()
    let said = ''
    const child = spawn(program, ['serve'], {
      env: { ...process.env, ALPENGLOW_ADDR: `127.0.0.1:${port}`, ALPENGLOW_DATABASE_URL: String(database) },
      stdio: ['ignore', 'pipe', 'ignore'],
    })
    child.stdout.on('data', (text: Buffer) => (said += text.toString()))
    await this.ready(child, `http://127.0.0.1:${port}`)
    return { url: `http://127.0.0.1:${port}`, said: () => said, stop: () => child.kill('SIGINT') }
  }

  private async ready(child: ChildProcess, url = this.url) {
    for (let i = 0; i < 300; i++) {
      if (child.exitCode !== null) throw new Error(`the server ended: ${this.log}`)
      const ready = await fetch(`${url}/readyz`).catch(() => null)
      if (ready?.ok) return
      await new Promise((resolve) => setTimeout(resolve, 100))
    }
    throw new Error(`the server is not ready: ${this.log}`)
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
    rmSync(this.data, { recursive: true, force: true })
  }
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
