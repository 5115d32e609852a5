import { test } from '@playwright/test'
import { disperse } from './crowd'
import { DemoServer } from './server'

/** A demo of its own for the tests of a file, and the end of it and of the crowds in its lessons. */
export function demo() {
  let server: DemoServer | undefined
  test.beforeAll(async () => {
    server = await DemoServer.start()
  })
  test.afterEach(disperse)
  // A test that failed says what its server logged. What students wrote is in no log.
  test.afterEach(() => {
    const { status, expectedStatus } = test.info()
    if (status === expectedStatus || !server) return
    const lines = server.log.split('\n').filter((line) => !line.includes('"route":"interface"'))
    console.log([server.ended ? 'the server has ended' : 'the server runs', ...lines.slice(-60)].join('\n'))
  })
  test.afterAll(async () => {
    await server?.remove()
  })
  return {
    get url() {
      return server!.url
    },
  }
}
