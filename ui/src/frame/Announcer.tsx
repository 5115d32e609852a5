import { useEffect, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Element } from '../wire/types.gen'
import { useHand } from './hand/useHand'

/** What others do is gathered for this long and then told in one sentence. */
const GATHER_MS = 4000

/** Tells those who do not see it, politely and in groups, what others change on the frame. */
export function Announcer({ marks }: { marks: readonly Element[] }) {
  const { t } = useTranslation()
  const hand = useHand()
  const [said, setSaid] = useState('')
  const before = useRef<Map<string, Element> | null>(null)
  const news = useRef(new Map<string, { added: number; changed: number }>())
  const fresh = useRef(new Set<string>())
  const timer = useRef(0)

  useEffect(() => {
    const now = new Map(marks.map((m) => [m.id, m]))
    const old = before.current
    before.current = now
    if (!old) return
    const note = (who: string | undefined, what: 'added' | 'changed') => {
      if (!who || who === hand.ground.me) return
      const of = news.current.get(who) ?? { added: 0, changed: 0 }
      of[what]++
      news.current.set(who, of)
    }
    for (const [id, mark] of now) {
      const was = old.get(id)
      if (!was) {
        note(mark.author, 'added')
        fresh.current.add(id)
      } else if (was !== mark && mark.at !== 0 && !fresh.current.has(id)) note(mark.by ?? mark.author, 'changed')
    }
    for (const [id, mark] of old) if (!now.has(id)) note(mark.author, 'changed')
    if (news.current.size === 0 || timer.current) return
    timer.current = window.setTimeout(() => {
      timer.current = 0
      const people = [...news.current]
      news.current = new Map()
      fresh.current = new Set()
      const sentence = ([who, { added, changed }]: (typeof people)[number]) =>
        [
          added && t('announce.added', { name: hand.nameOf(who), count: added }),
          changed && t('announce.changed', { name: hand.nameOf(who), count: changed }),
        ]
          .filter(Boolean)
          .join(' ')
      setSaid(people.length > 3 ? t('announce.many', { count: people.length }) : people.map(sentence).join(' '))
    }, GATHER_MS)
  }, [marks, hand, t])
  useEffect(() => () => clearTimeout(timer.current), [])

  return (
    <p aria-live="polite" className="sr-only" data-part="announcer">
      {said}
    </p>
  )
}
