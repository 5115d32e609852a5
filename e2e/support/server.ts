import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { join } from 'node:path'

const program = join(import.meta.dirname, '../../bin/alpenglow')

/** The demo, started on free ports with a database of its own. */
export class DemoServer {
  readonly url: string
  private readonly port: number
  private readonly data: string
  private child: ChildProcess | null = null
  /** What the server has logged since it was made. */
  log = ''

  private constructor(port: number, data: string) {
    this.port = port
    this.data = data
    this.url = `http://127.0.0.1:${port}`
  }

  static async start(): Promise<DemoServer> {
    const server = new DemoServer(await freePort(), mkdtempSync('/var/tmp/alpenglow-e2e-'))
    // PostgreSQL may run as another user, who must be able to reach its folder.
    const { chmodSync } = await import('node:fs')
    chmodSync(server.data, 0o755)
    await server.run()
    return server
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
    this.child = child
    for (let i = 0; i < 300; i++) {
      if (child.exitCode !== null) throw new Error(`the server ended: ${this.log}`)
      const ready = await fetch(`${this.url}/readyz`).catch(() => null)
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

function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const probe = createServer()
    probe.once('error', reject)
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address()
      probe.close(() => (address && typeof address === 'object' ? resolve(address.port) : reject(new Error('no port'))))
    })
  })
}
