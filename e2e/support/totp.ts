import { createHmac } from 'node:crypto'

/** The time code of a secret (RFC 6238: SHA-1, six digits, 30 s), now or some steps from now. */
export function timeCode(secret: string, steps = 0): string {
  const letters = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567'
  const bits = [...secret.replace(/\s/g, '')].map((c) => letters.indexOf(c).toString(2).padStart(5, '0')).join('')
  const key = Buffer.from((bits.match(/.{8}/g) ?? []).map((byte) => parseInt(byte, 2)))
  const counter = Buffer.alloc(8)
  counter.writeBigUInt64BE(BigInt(Math.floor(Date.now() / 30_000) + steps))
  const sum = createHmac('sha1', key).update(counter).digest()
  const at = sum[19]! & 15
  return String((sum.readUInt32BE(at) & 0x7fffffff) % 1_000_000).padStart(6, '0')
}
