import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { join } from 'node:path'

/** Tests have databases in one cluster: that of a run of all tests, or one that is started for these alone. */
export default async function cluster() {
  if (process.env.ALPENGLOW_TEST_CLUSTER) return
  const child = spawn(join(import.meta.dirname, '../../bin/testrun'), ['cluster'], {
    stdio: ['pipe', 'pipe', 'inherit'],
  })
  const [address] = (await once(child.stdout, 'data')) as [Buffer]
  process.env.ALPENGLOW_TEST_CLUSTER = address.toString().trim()
  // It ends when nobody is there any more who could say so.
  return async () => {
    child.stdin.end()
    await once(child, 'exit')
  }
}
