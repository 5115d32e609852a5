import { Eye, EyeOff, Trash2 } from 'lucide-react'
import { useId, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 as uuidv7 } from 'uuid'
import { Button } from '../kit/Button'
import { onMark } from '../rules/apply'
import { isHeld, isHidden, isRemoved } from '../rules/standing'
import type { Element } from '../wire/types.gen'
import { useLesson, useLessonState } from '../wire/hooks/useLesson'
import '../words/windows'

const MOST = 300

/** What somebody has begun to say, by sheet: it stays when they look at something else meanwhile. */
const drafts = new Map<string, string>()

type Remark = Element & { kind: 'remark' }

/** What others have said about the work on a sheet, the oldest first, as somebody may see it. */
export const remarksOn = (marks: readonly Element[], me: string) =>
  marks
    .filter((m): m is Remark => m.kind === 'remark' && !isRemoved(m) && (me === 'staff' || !isHidden(m)))
    .sort((a, b) => a.at - b.at)

type Props = {
  sheet: string
  remarks: readonly Remark[]
  /** Who reads: a participant's id or "staff". */
  me: string
  /** Whether they may say something, too. */
  may: boolean
}

/** What others say about somebody's work, and a field for one's own word. */
export function Remarks({ sheet, remarks, me, may }: Props) {
  const { t } = useTranslation()
  const lesson = useLesson()
  const people = useLessonState((s) => s.people)
  const id = useId()
  const [text, setText] = useState(drafts.get(sheet) ?? '')
  const staff = me === 'staff'
  const nameOf = (author = '') =>
    author === 'staff'
      ? t('frame.teacher')
      : author === me
        ? t('remarks.you')
        : (people.get(author)?.name ?? t('frame.somebody'))
  const small = 'inline-flex size-9 shrink-0 items-center justify-center rounded-lg text-slate hover:bg-mist'
  function change(to: string) {
    drafts.set(sheet, to)
    setText(to)
  }
  function send() {
    if (!text.trim()) return
    const add = { mark: uuidv7(), x: 0, y: 0, w: 0, h: 0, kind: 'remark', remark: { text: text.trim() } } as const
    lesson.do(sheet, { kind: 'add', add })
    change('')
  }
  return (
    <section aria-label={t('remarks.title')} className="flex flex-col gap-2">
      <ul className="flex flex-col gap-1.5">
        {remarks.map((r) => (
          <li
            key={r.id}
            className={`flex items-start gap-2 rounded-lg border bg-paper px-2.5 py-1.5 ${isHidden(r) ? 'border-dashed border-slate' : 'border-line'}`}
          >
            <div className="min-w-0 grow">
              <p className="truncate text-[13px] font-semibold text-slate">{nameOf(r.author)}</p>
              <p dir="auto" className="break-words whitespace-pre-wrap">
                {r.remark.text}
              </p>
              {isHidden(r) && <p className="text-[13px] font-semibold text-slate">{t('frame.hiddenMark')}</p>}
              {isHeld(r) && <p className="text-[13px] font-semibold text-amber">{t('frame.heldMark')}</p>}
            </div>
            {staff && (
              <button
                type="button"
                aria-label={t(isHidden(r) ? 'replies.show' : 'replies.hide', { text: r.remark.text })}
                className={small}
                onClick={() => lesson.do(sheet, onMark(isHidden(r) ? 'show' : 'hide', r.id))}
              >
                {isHidden(r) ? <Eye size={16} aria-hidden="true" /> : <EyeOff size={16} aria-hidden="true" />}
              </button>
            )}
            {(staff || (may && r.author === me)) && (
              <button
                type="button"
                aria-label={t('replies.remove', { text: r.remark.text })}
                className={small}
                onClick={() => lesson.do(sheet, onMark('remove', r.id))}
              >
                <Trash2 size={16} aria-hidden="true" />
              </button>
            )}
          </li>
        ))}
      </ul>
      {may && (
        <form
          className="flex items-end gap-2"
          onSubmit={(e) => {
            e.preventDefault()
            send()
          }}
        >
          <div className="min-w-0 grow">
            <label htmlFor={id} className="mb-1 block font-semibold">
              {t('remarks.write')}
            </label>
            <textarea
              id={id}
              dir="auto"
              rows={2}
              maxLength={MOST}
              value={text}
              onChange={(e) => change(e.target.value)}
              onKeyDown={(e) => {
                if (e.key !== 'Enter' || e.shiftKey || e.nativeEvent.isComposing) return
                e.preventDefault()
                send()
              }}
              className="w-full rounded-lg border-2 border-edge bg-paper px-3 py-2"
            />
          </div>
          <Button type="submit" look="main" disabled={!text.trim()}>
            {t('remarks.send')}
          </Button>
        </form>
      )}
    </section>
  )
}
