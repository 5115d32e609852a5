import { FileUp, Plus } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { Button } from '../kit/Button'
import { FileButton } from '../kit/fields/FileButton'
import { Dialog } from '../kit/windows/Dialog'
import { Field } from '../kit/fields/Field'
import { call, codeOf, send } from '../wire/http'
import type { BoardMade, Code, NewBoard as Ask } from '../wire/types.gen'

/** Begins a board, or opens a board file that was saved elsewhere. */
export function NewBoard() {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const [asking, setAsking] = useState(false)
  const [title, setTitle] = useState('')
  const [share, setShare] = useState<number | null>(null)
  const [problem, setProblem] = useState<Code | null>(null)
  async function make(work: Promise<BoardMade>) {
    setProblem(null)
    try {
      void navigate(`/boards/${(await work).board}`)
    } catch (error) {
      setProblem(codeOf(error))
    }
    setShare(null)
  }
  return (
    <>
      {share !== null && (
        <progress aria-label={t('boards.importFile')} value={share} max={1} className="h-2 w-40 accent-dusk" />
      )}
      {problem && !asking && (
        <p role="alert" className="font-semibold text-rose">
          {t(`refusal.${problem}`)}
        </p>
      )}
      <FileButton
        icon={FileUp}
        label={t('boards.importFile')}
        accept=".board"
        onFile={(board) => void make(send<BoardMade>('/boards/file', board, setShare).done)}
      />
      <Button look="main" onClick={() => setAsking(true)}>
        <Plus size={17} aria-hidden="true" />
        {t('boards.new')}
      </Button>
      <Dialog open={asking} onOpenChange={setAsking} title={t('boards.new')}>
        <form
          onSubmit={(e) => {
            e.preventDefault()
            void make(call<BoardMade>('POST', '/boards', { title } satisfies Ask))
          }}
        >
          <Field
            label={t('boards.newName')}
            value={title}
            maxLength={120}
            problem={problem && t(`refusal.${problem}`)}
            onChange={(e) => setTitle(e.target.value)}
          />
          <div className="flex justify-end gap-2">
            <Button onClick={() => setAsking(false)}>{t('cancel')}</Button>
            <Button look="main" type="submit">
              {t('boards.create')}
            </Button>
          </div>
        </form>
      </Dialog>
    </>
  )
}
