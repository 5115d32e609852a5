import { DoorClosed } from 'lucide-react'
import { useEffect, useRef } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import { call, codeOf } from '../wire/http'
import type { AtDoor as Reply, Code, Seat } from '../wire/types.gen'

/** How often a device asks whether it may come in. */
const ASKS_MS = 2500

type Props = { code: string; name: string; onSeat: (seat: Seat) => void; onRefused: (code: Code | null) => void }

/** Somebody who has knocked waits until the teacher lets them in; without network they wait on. */
export function AtDoor({ code, name, onSeat, onRefused }: Props) {
  const { t } = useTranslation()
  const then = useRef({ onSeat, onRefused })
  useEffect(() => {
    then.current = { onSeat, onRefused }
  })
  useEffect(() => {
    let gone = false
    let timer = 0
    async function ask() {
      try {
        const at = await call<Reply>('POST', '/join/wait', { code })
        if (gone) return
        if (at.seat) return then.current.onSeat(at.seat)
      } catch (error) {
        if (gone) return
        if (codeOf(error) !== 'unavailable') return then.current.onRefused(codeOf(error))
      }
      timer = window.setTimeout(() => void ask(), ASKS_MS)
    }
    void ask()
    return () => {
      gone = true
      clearTimeout(timer)
    }
  }, [code])
  return (
    <div className="flex flex-col items-center gap-4" role="status">
      <DoorClosed size={44} className="text-dusk" aria-hidden="true" />
      <p className="text-xl font-semibold">{t('join.waiting', { name })}</p>
      <p className="text-slate">{t('join.waitingText')}</p>
      <Button look="quiet" onClick={() => onRefused(null)}>
        {t('join.waitNoMore')}
      </Button>
    </div>
  )
}
