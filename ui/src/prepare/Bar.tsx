import { Eye, Play, Table2, Target, Users } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { Button } from '../kit/Button'
import { Logo } from '../kit/Logo'
import { SavedSign } from '../kit/SavedSign'
import { Criteria } from './Criteria'
import { Objectives } from './Objectives'
import { RehearseDialog } from './RehearseDialog'
import { Typed } from '../kit/fields/Typed'
import { useDesk, useDeskState } from './useDesk'

/** The board's name, whether it is saved, and where to go from here. */
export function Bar({ frame, trying, onTry }: { frame: string; trying: boolean; onTry: () => void }) {
  const { t } = useTranslation()
  const desk = useDesk()
  const lesson = useDeskState((s) => s.lesson)
  const title = useDeskState((s) => s.outline?.title ?? '')
  const [open, setOpen] = useState<'objectives' | 'criteria' | 'rehearse' | null>(null)
  return (
    <header className="flex flex-wrap items-center gap-x-3 gap-y-2 border-b border-line bg-paper px-4 py-2">
      <Link to="/boards" aria-label={t('prepare.toBoards')}>
        <Logo />
      </Link>
      <h1 className="min-w-48 grow font-display text-lg font-semibold">
        <Typed
          label={t('prepare.boardTitle')}
          hideLabel
          value={title}
          limit={120}
          required
          onChange={(next) => desk.change({ kind: 'board', board: { title: next } })}
        />
      </h1>
      <span data-part="saved">
        <SavedSign />
      </span>
      <Button onClick={() => setOpen('objectives')}>
        <Target size={17} aria-hidden="true" />
        {t('prepare.objectives')}
      </Button>
      <Button onClick={() => setOpen('criteria')}>
        <Table2 size={17} aria-hidden="true" />
        {t('grid.open')}
      </Button>
      <Button aria-pressed={trying} onClick={onTry}>
        <Eye size={17} aria-hidden="true" />
        {t('prepare.try')}
      </Button>
      {!lesson && (
        <Button onClick={() => setOpen('rehearse')}>
          <Users size={17} aria-hidden="true" />
          {t('prepare.rehearse')}
        </Button>
      )}
      <Link
        to={lesson ? `/run/${desk.board}` : `/start/${desk.board}`}
        className="inline-flex items-center gap-2 rounded-lg border border-dusk bg-dusk px-3 py-1.5 font-semibold text-paper hover:bg-night"
      >
        <Play size={17} aria-hidden="true" />
        {t(lesson ? 'prepare.toLesson' : 'prepare.start')}
      </Link>
      {lesson && <p className="w-full rounded-lg bg-amber-soft px-3 py-1.5 text-night">{t('prepare.running')}</p>}
      {open === 'objectives' && <Objectives onClose={() => setOpen(null)} />}
      {open === 'criteria' && <Criteria frame={frame} onClose={() => setOpen(null)} />}
      {open === 'rehearse' && <RehearseDialog onClose={() => setOpen(null)} />}
    </header>
  )
}
