import { useQuery } from '@tanstack/react-query'
import { Download } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import { Dialog } from '../kit/windows/Dialog'
import { call, codeOf, download } from '../wire/http'
import type { Code, QuestionFile as Held } from '../wire/types.gen'

const formats = ['text', 'csv', 'xlsx', 'qti3', 'qti2'] as const

type Props = { board: { id: string; title: string }; onClose: () => void }

/** Saves a board's questions as a file of some kind, and says before what that cannot hold. */
export function QuestionFile({ board, onClose }: Props) {
  const { t } = useTranslation()
  const [as, setAs] = useState<(typeof formats)[number]>('text')
  const path = `/boards/${board.id}/questions?as=${as}`
  const [problem, setProblem] = useState<Code | null>(null)
  const held = useQuery({ queryKey: ['questions', board.id, as], queryFn: () => call<Held>('GET', `${path}&lost=1`) })
  async function save() {
    setProblem(null)
    try {
      await download(path)
    } catch (error) {
      setProblem(codeOf(error))
    }
  }
  return (
    <Dialog open onOpenChange={onClose} title={t('questionFile.title', board)}>
      <fieldset className="mb-4 flex flex-col gap-1">
        <legend className="mb-1 font-semibold">{t('questionFile.as')}</legend>
        {formats.map((format) => (
          <label key={format} className="flex min-h-9 items-center gap-2">
            <input
              type="radio"
              name="format"
              className="size-4 accent-dusk"
              checked={as === format}
              onChange={() => setAs(format)}
            />
            {t(`questionFile.as_${format}`)}
          </label>
        ))}
      </fieldset>
      <div role="status" className="mb-4 min-h-16">
        {held.isPending && t('loading')}
        {held.isError && t(`refusal.${codeOf(held.error)}`)}
        {held.data && <Lost held={held.data} />}
      </div>
      {problem && (
        <p role="alert" className="mb-3 rounded-lg bg-rose-soft px-3 py-2 text-rose">
          {t(`refusal.${problem}`)}
        </p>
      )}
      <div className="flex justify-end">
        <Button look="main" disabled={!held.data || held.data.questions === 0} onClick={() => void save()}>
          <Download size={17} aria-hidden="true" />
          {t('questionFile.save')}
        </Button>
      </div>
    </Dialog>
  )
}

/** What a file does not hold, question by question. */
function Lost({ held }: { held: Held }) {
  const { t } = useTranslation()
  if (held.questions === 0) return t('questionFile.none')
  if (held.lost.length === 0) return t('questionFile.all', { count: held.questions })
  return (
    <>
      <p className="mb-1 font-semibold">{t('questionFile.lost', { count: held.lost.length })}</p>
      <ul className="text-sm">
        {held.lost.map((q) => (
          <li key={q.at} className="py-0.5">
            <span className="text-slate tabular-nums">{q.at}.</span> <span dir="auto">{q.text}</span>:{' '}
            <span className="text-amber">{q.lost.map((l) => t(`questionFile.loss_${l}`)).join(', ')}</span>
          </li>
        ))}
      </ul>
    </>
  )
}
