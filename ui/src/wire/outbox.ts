import { openDB, type IDBPDatabase } from 'idb'
type Row<Op> = { id: string; seat: string; op: Op }

/** Operations that are not yet saved on the server, kept on the device until they are. */
export interface Outbox<Op> {
  /** What is still to be sent for a seat, in the order it was done. */
  load(seat: string): Promise<Op[]>
  put(seat: string, op: Op): Promise<void>
  drop(id: string): Promise<void>
  /** False when this browser keeps nothing (some private windows). */
  readonly lasting: boolean
}

/** Opens the device's outbox; without IndexedDB it lasts as long as the page. */
export async function openOutbox<Op extends { id: string }>(): Promise<Outbox<Op>> {
  let db: IDBPDatabase
  try {
    db = await openDB('alpenglow', 1, {
      upgrade: (fresh) => {
        fresh.createObjectStore('outbox', { keyPath: 'id' }).createIndex('seat', 'seat')
      },
    })
  } catch {
    return { lasting: false, load: async () => [], put: async () => {}, drop: async () => {} }
  }
  return {
    lasting: true,
    async load(seat) {
      const rows = (await db.getAllFromIndex('outbox', 'seat', seat)) as Row<Op>[]
      // Ids are version 7 UUIDs, which sort by the time they were made.
      return rows.sort((a, b) => (a.id < b.id ? -1 : 1)).map((row) => row.op)
    },
    async put(seat, op) {
      await db.put('outbox', { id: op.id, seat, op } satisfies Row<Op>)
    },
    async drop(id) {
      await db.delete('outbox', id)
    },
  }
}
