import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { Button } from '../kit/Button'
import { Confirm } from '../kit/windows/Confirm'
import { call } from '../wire/http'
import type { SessionItem } from '../wire/types.gen'
import { SessionName } from '../kit/SessionName'
import { whenAt } from '../words/words'

/** How many are shown at first, so that the boards stay in sight. */
const FEW = 2

/** The lessons that go on, the newest first; those that were left open are said to be, and can be ended here. */
export function LiveLessons({ live }: { live: SessionItem[] }) {
  const { t } = useTranslation()
  const [all, setAll] = useState(false)
  const [ending, setEnding] = useState<SessionItem | null>(null)
  const queries = useQueryClient()
  const sorted = [...live].sort((a, b) => Date.parse(b.startedAt) - Date.parse(a.startedAt))
  const now = [...sorted.filter((s) => !s.leftOpen), ...sorted.filter((s) => s.leftOpen)]
  return (
    <section aria-labelledby="live">
      <h2 id="live" className="mb-3 text-lg">
        {t('boards.live')}
      </h2>
      <ul className="flex flex-col gap-2">
        {(all ? now : now.slice(0, FEW)).map((s) => (
          <li
            key={s.id}
            className={`flex flex-wrap items-center gap-3 rounded-xl border-2 px-4 py-3 ${s.leftOpen ? 'border-line bg-paper' : 'border-glow bg-glow-soft'}`}
          >
            {!s.leftOpen && <span aria-hidden="true" className="size-2.5 rounded-full bg-glow" />}
            <span className="min-w-0">
              <SessionName session={s} />
              {s.leftOpen && <span className="block text-sm font-semibold text-amber">{t('boards.leftOpen')}</span>}
              {s.due !== undefined && (
                <span className="block text-sm font-semibold">{t('homework.until', { when: whenAt(s.due) })}</span>
              )}
            </span>
            <span className="ms-auto flex flex-wrap gap-2">
              {s.leftOpen && <Button onClick={() => setEnding(s)}>{t('boards.finishOld')}</Button>}
              <Link
                to={`/run/${s.id}`}
                className={`rounded-lg px-3.5 py-1.5 font-semibold ${s.leftOpen ? 'border border-edge bg-paper hover:bg-mist' : 'bg-glow text-paper hover:bg-glow-deep'}`}
              >
                {t('boards.toSession')}
              </Link>
            </span>
          </li>
        ))}
      </ul>
      {now.length > FEW && (
        <Button look="quiet" aria-expanded={all} onClick={() => setAll(!all)}>
          {all ? t('boards.fewer') : t('boards.allLive', { count: now.length })}
        </Button>
      )}
      <Confirm
        open={ending !== null}
        onOpenChange={() => setEnding(null)}
        title={t('run.finishTitle')}
        text={t('run.finishText')}
        yes={t('boards.finishOld')}
        onYes={async () => {
          await call('POST', `/sessions/${ending!.id}/end`, {})
          setEnding(null)
          await queries.invalidateQueries({ queryKey: ['boards'] })
        }}
      />
    </section>
  )
}
