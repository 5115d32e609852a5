import { rmSync } from 'node:fs'
import { DemoServer } from './server'

/** Before all tests a demo is made, which each test has a copy of; after them it goes. */
export default async function made() {
  const folder = await DemoServer.make()
  process.env.DEMO_MADE = folder
  return () => rmSync(folder, { recursive: true, force: true })
}
