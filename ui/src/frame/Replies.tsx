import { Eye, EyeOff, ThumbsUp, Trash2 } from 'lucide-react'
import { useId, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 as uuidv7 } from 'uuid'
import { Button } from '../kit/Button'
import type { Reply } from '../rules/pieces'
import { isHeld, isHidden } from '../rules/standing'
import type { Element } from '../wire/types.gen'
import { useBench } from '../wire/hooks/useLesson'
import '../words/windows'

const MOST = 300

/** What somebody has begun to answer, by note: it stays when they look at something else meanwhile. */
const drafts = new Map<string, string>()

type Props = {
  note: Element
  replies: readonly Reply[]
  sheet: string
  /** Who reads: a participant's id or "staff". */
  me: string
  may: boolean
  nameOf: (author: string | undefined) => string
}

/** The short answers under a note, the oldest first, and a field for one's own. */
export function Replies({ note, replies, sheet, me, may, nameOf }: Props) {
  const { t } = useTranslation()
  const bench = useBench()
  const id = useId()
  const [text, setText] = useState(drafts.get(note.id) ?? '')
  function change(to: string) {
    drafts.set(note.id, to)
    setText(to)
  }
  const staff = me === 'staff'
  const seen = replies.filter((r) => staff || !isHidden(r)).sort((a, b) => a.at - b.at)
  const small = 'inline-flex min-h-9 items-center gap-1 rounded-lg px-1.5 text-sm text-slate hover:bg-mist'
  function send() {
    if (!text.trim()) return
    const reply = { to: note.id, text: text.trim() }
    bench.do(sheet, { kind: 'add', add: { mark: uuidv7(), x: 0, y: 0, w: 0, h: 0, kind: 'reply', reply } })
    change('')
  }
  return (
    <>
      <ul className="flex flex-col gap-2" aria-label={t('replies.title')}>
        {seen.map((r) => {
          const yes = r.agreed?.includes(me) ?? false
          return (
            <li
              key={r.id}
              className={`rounded-lg border border-line bg-paper p-2 ${isHidden(r) ? 'border-dashed border-slate' : ''}`}
            >
              <p className="text-sm font-semibold text-slate">{nameOf(r.author)}</p>
              <p dir="auto" className="break-words whitespace-pre-wrap">
                {r.reply.text}
              </p>
              {isHidden(r) && <p className="text-sm font-semibold text-slate">{t('frame.hiddenMark')}</p>}
              {isHeld(r) && <p className="text-sm font-semibold text-amber">{t('frame.heldMark')}</p>}
              <p className="flex items-center">
                {r.author !== me ? (
                  <button
                    type="button"
                    aria-pressed={yes}
                    aria-label={t('replies.agree', { text: r.reply.text })}
                    className={`${small} ${yes ? 'text-dusk' : ''}`}
                    onClick={() => bench.do(sheet, { kind: 'agree', agree: { mark: r.id, yes: !yes } })}
                  >
                    <ThumbsUp size={16} aria-hidden="true" className={yes ? 'fill-dusk-soft' : ''} />
                    {r.agreed?.length || ''}
                  </button>
                ) : (
                  r.agreed?.length && <span className={small}>{t('marks.agreed', { count: r.agreed.length })}</span>
                )}
                {staff && (
                  <button
                    type="button"
                    aria-label={t(isHidden(r) ? 'replies.show' : 'replies.hide', { text: r.reply.text })}
                    className={small}
                    onClick={() =>
                      bench.do(
                        sheet,
                        isHidden(r) ? { kind: 'show', show: { mark: r.id } } : { kind: 'hide', hide: { mark: r.id } },
                      )
                    }
                  >
                    {isHidden(r) ? <Eye size={16} aria-hidden="true" /> : <EyeOff size={16} aria-hidden="true" />}
                  </button>
                )}
                {(staff || (may && r.author === me)) && (
                  <button
                    type="button"
                    aria-label={t('replies.remove', { text: r.reply.text })}
                    className={small}
                    onClick={() => bench.do(sheet, { kind: 'remove', remove: { mark: r.id } })}
                  >
                    <Trash2 size={16} aria-hidden="true" />
                  </button>
                )}
              </p>
            </li>
          )
        })}
      </ul>
      {may && (
        <form
          className="flex flex-col gap-1.5"
          onSubmit={(e) => {
            e.preventDefault()
            send()
          }}
        >
          <textarea
            id={id}
            aria-label={t('replies.write')}
            placeholder={t('replies.write')}
            dir="auto"
            rows={2}
            maxLength={MOST}
            value={text}
            onChange={(e) => change(e.target.value)}
            // On a frame keys move marks; here they write.
            onKeyDown={(e) => e.stopPropagation()}
            className="w-full rounded-lg border border-edge bg-paper p-2"
          />
          <Button type="submit" className="self-start" disabled={!text.trim()}>
            {t('replies.send')}
          </Button>
        </form>
      )}
    </>
  )
}
