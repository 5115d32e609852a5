import { Eye, EyeOff } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import { coverLook } from '../../frame/marks/CoverMark'
import type { Staff } from '../../wire/lesson'
import type { Element } from '../../wire/types.gen'
import { useStaffLesson } from '../../wire/hooks/useStaff'

/** A cover as the teacher sees it in class: one press lifts it for everybody, another lays it back. */
export function Cover({ mark, staff }: { mark: Element & { kind: 'cover' }; staff: Staff }) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const lifted = staff.state.lifted?.includes(mark.id) ?? false
  const { x, y, w, h } = mark
  return (
    <button
      type="button"
      data-own-hand
      aria-label={[t(lifted ? 'run.lay' : 'run.lift'), mark.cover.text].filter(Boolean).join(': ')}
      aria-pressed={lifted}
      onClick={() => void lesson.give({ kind: 'lift', lift: { cover: mark.id, down: lifted } })}
      className={`absolute text-[28px] ${lifted ? 'pointer-events-none border-3 border-dashed border-edge' : `cursor-pointer ${coverLook(mark)}`}`}
      style={{ left: x, top: y, width: w, height: h, pointerEvents: lifted ? 'none' : 'auto' }}
    >
      {!lifted && mark.cover.text}
      <span
        className="pointer-events-auto absolute end-2 top-2 inline-flex items-center gap-2 rounded-lg bg-paper px-2.5 py-1 text-[22px] font-semibold text-dusk"
        title={t(lifted ? 'run.lay' : 'run.lift')}
      >
        {lifted ? <EyeOff size={24} aria-hidden="true" /> : <Eye size={24} aria-hidden="true" />}
        {lifted ? t('run.liftedNote') : t('run.liftShort')}
      </span>
    </button>
  )
}
