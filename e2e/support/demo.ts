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
  test.afterAll(async () => {
    await server?.remove()
  })
  return {
    get url() {
      return server!.url
    },
  }
}
