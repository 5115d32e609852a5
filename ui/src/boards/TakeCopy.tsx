import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate, useParams } from 'react-router'
import { Thumbnail } from '../frame/paint/Thumbnail'
import { Button } from '../kit/Button'
import { call, codeOf } from '../wire/http'
import type { BoardMade, Code, SharedBoard } from '../wire/types.gen'
import { ToSignIn } from '../kit/ToSignIn'

/** What a colleague's link leads to: a look at the board, and a copy of it. */
export function TakeCopy() {
  const { t } = useTranslation()
  const { word = '' } = useParams()
  const navigate = useNavigate()
  const [problem, setProblem] = useState<Code | null>(null)
  const shared = useQuery({ queryKey: ['shared', word], queryFn: () => call<SharedBoard>('GET', `/shared/${word}`) })
  if (shared.isError && codeOf(shared.error) === 'sign-in-needed') return <ToSignIn />
  async function take() {
    try {
      const { board } = await call<BoardMade>('POST', `/shared/${word}`, {})
      void navigate(`/boards/${board}`)
    } catch (error) {
      setProblem(codeOf(error))
    }
  }
  const code = problem ?? (shared.isError ? codeOf(shared.error) : null)
  return (
    <main className="mx-auto flex min-h-full max-w-lg flex-col justify-center gap-4 p-6">
      <h1 className="text-2xl">{t('take.title')}</h1>
      {code && (
        <p role="alert" className="font-semibold text-rose">
          {t(`refusal.${code}`)}
        </p>
      )}
      {shared.isPending && <p role="status">{t('loading')}</p>}
      {shared.data && (
        <div className="overflow-hidden rounded-2xl border border-line bg-paper">
          <Thumbnail frame={shared.data.first} marks={[]} width={480} label={shared.data.title} />
          <div className="flex items-center gap-3 border-t border-line p-4">
            <span className="grow">
              <b className="block font-semibold">{shared.data.title}</b>
              <span className="text-sm text-slate">{t('take.frames', { count: shared.data.frames })}</span>
            </span>
            <Button look="main" onClick={() => void take()}>
              {t('take.take')}
            </Button>
          </div>
        </div>
      )}
    </main>
  )
}
