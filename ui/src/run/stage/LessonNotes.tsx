import { NotebookText } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Dialog } from '../../kit/windows/Dialog'
import type { Frame } from '../../wire/types.gen'

/** The lesson notes of a frame, opened when wanted: the screen may be on the wall. */
export function LessonNotes({ frame }: { frame: Frame }) {
  const { t } = useTranslation()
  const [open, setOpen] = useState(false)
  if (!frame.notes) return null
  return (
    <>
      <button
        type="button"
        onClick={() => setOpen(true)}
        className="inline-flex items-center gap-1.5 rounded-lg px-2 py-1 hover:bg-mist hover:text-night"
      >
        <NotebookText size={15} aria-hidden="true" />
        {t('run.notes')}
      </button>
      <Dialog open={open} onOpenChange={setOpen} title={t('run.notesTitle')}>
        <p className="whitespace-pre-wrap">{frame.notes}</p>
      </Dialog>
    </>
  )
}
