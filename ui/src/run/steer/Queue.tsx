import { Check, Clock, X } from 'lucide-react'
import { useEffect, useEffectEvent, useRef, useState, type FormEvent } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import { Face } from '../../kit/people'
import { Dialog } from '../../kit/windows/Dialog'
import { pictureURL } from '../../frame/pictures/pictures'
import { onMark } from '../../rules/apply'
import { readsOf } from '../../rules/reads'
import type { Staff } from '../../wire/lesson'
import type { Waiting } from '../../wire/types.gen'
import { useLessonState } from '../../wire/hooks/useLesson'
import { useStaffLesson } from '../../wire/hooks/useStaff'
import { ago } from '../../words/words'
import { useNow } from '../../kit/hooks/useNow'

/** How many characters of what was written go back with a word about it. */
const ABOUT = 120

/** What waits for the teacher's yes: how much it is, and the way to it; nothing while nothing waits. */
export function Queue({ staff }: { staff: Staff }) {
  const { t } = useTranslation()
  const count = useLessonState((s) => s.queue.count)
  const [open, setOpen] = useState(false)
  return (
    <>
      <div role="status" data-part="queue" className="empty:hidden">
        {count > 0 && (
          <p className="flex items-center gap-2 rounded-xl border border-amber bg-amber-soft p-2">
            <Clock size={16} aria-hidden="true" className="text-amber" />
            <span className="grow text-[15px] font-semibold text-amber">{t('queue.waits', { count })}</span>
            <Button onClick={() => setOpen(true)}>{t('queue.read')}</Button>
          </p>
        )}
      </div>
      <Dialog open={open} onOpenChange={setOpen} title={t('queue.title')} text={t('queue.text')}>
        <Reading staff={staff} />
      </Dialog>
    </>
  )
}

/** A mark with what it says: with other words it is to be read once more. */
const asRead = ({ mark }: Waiting) => `${mark.id} ${readsOf(mark) ?? ''}`

/** One of those that wait at a time: yes, no with a word to who wrote it, or later. */
function Reading({ staff }: { staff: Staff }) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const { first, count } = useLessonState((s) => s.queue)
  const [later, putOff] = useState<string[]>([])
  const [no, sayNo] = useState(false)
  const [done, settle] = useState<string[]>([])
  const open = first.filter((w) => !done.includes(asRead(w)))
  const now = open.find((w) => !later.includes(w.mark.id)) ?? open[0]
  if (!now) return <p role="status">{t('queue.nothing')}</p>
  const one = now
  function shows(some: Waiting[]) {
    // What has become another since it was read goes on waiting: each is an operation of its own.
    for (const w of some) lesson.do(w.sheet, { kind: 'show', show: { mark: w.mark.id, read: readsOf(w.mark) } })
    settle([...done, ...some.map(asRead)])
  }
  function refuse(word: string) {
    lesson.do(one.sheet, onMark('hide', one.mark.id))
    const about = (readsOf(one.mark) ?? '').slice(0, ABOUT)
    if (word.trim() && one.mark.author)
      void lesson.say({ kind: 'tell', tell: { student: one.mark.author, text: word.trim(), about } })
    settle([...done, asRead(one)])
    sayNo(false)
  }
  const put = () => putOff([...later.filter((id) => id !== one.mark.id), one.mark.id])
  return (
    <div data-part="reading" className="flex flex-col gap-4">
      {!no && (
        <Keys
          on={{
            [t('queue.keyYes')]: () => shows([one]),
            [t('queue.keyNo')]: () => sayNo(true),
            [t('queue.keyLater')]: put,
          }}
        />
      )}
      <One waiting={one} staff={staff} />
      {no ? (
        <No onNo={refuse} onBack={() => sayNo(false)} />
      ) : (
        <div className="flex flex-wrap items-center gap-2">
          <Button look="main" onClick={() => shows([one])} aria-keyshortcuts={t('queue.keyYes')}>
            <Check size={17} aria-hidden="true" />
            {t('queue.yes')} <Key is={t('queue.keyYes')} />
          </Button>
          <Button onClick={() => sayNo(true)} aria-keyshortcuts={t('queue.keyNo')}>
            <X size={17} aria-hidden="true" />
            {t('queue.no')} <Key is={t('queue.keyNo')} />
          </Button>
          <Button onClick={put} disabled={open.length < 2} aria-keyshortcuts={t('queue.keyLater')}>
            {t('queue.later')} <Key is={t('queue.keyLater')} />
          </Button>
          <span className="grow" />
          {open.length > 1 && <Button onClick={() => shows(open)}>{t('queue.yesAll', { count: open.length })}</Button>}
        </div>
      )}
      <p role="status" className="text-sm text-slate">
        {t('queue.left', { count: Math.max(open.length, count - done.length) })}
      </p>
    </div>
  )
}

/** What single keys do while something is read. */
function Keys({ on }: { on: Record<string, () => void> }) {
  const press = useEffectEvent((e: KeyboardEvent) => {
    const does = on[e.key.toLowerCase()]
    if (!does || e.ctrlKey || e.metaKey || e.altKey) return
    e.preventDefault()
    does()
  })
  useEffect(() => {
    addEventListener('keydown', press)
    return () => removeEventListener('keydown', press)
  }, [])
  return null
}

function Key({ is }: { is: string }) {
  return (
    <kbd aria-hidden="true" className="rounded border border-current/40 px-1.5 text-[13px] uppercase">
      {is}
    </kbd>
  )
}

function One({ waiting: { mark, frame, words }, staff }: { waiting: Waiting; staff: Staff }) {
  const { t } = useTranslation()
  const now = useNow(5000)
  const name = useLessonState((s) => s.people.get(mark.author ?? '')?.name) ?? ''
  const n = staff.board.frames.findIndex((f) => f.id === frame) + 1
  return (
    <article aria-label={t('queue.of', { name })} className="flex flex-col gap-2">
      <p className="flex items-center gap-2.5">
        <Face id={mark.author ?? ''} name={name} />
        <span className="min-w-0">
          <b className="block truncate">{name}</b>
          <span className="text-[13px] text-slate">
            {t('queue.where', { kind: t(`marks.${mark.kind}`), n })} ·{' '}
            {ago(mark.standing?.at ?? 0, now) ?? t('run.lastNow')}
          </span>
        </span>
      </p>
      <div className="max-h-80 overflow-auto rounded-xl border border-line bg-mist p-4 text-lg">
        {mark.kind === 'picture' && (
          <img
            src={pictureURL(mark.picture.picture)}
            alt={mark.picture.alt || t('marks.picture')}
            className="max-h-72 rounded-lg"
          />
        )}
        <p dir="auto" className="break-words whitespace-pre-wrap">
          {readsOf(mark)}
        </p>
      </div>
      {words && words.length > 0 && (
        <p className="text-sm text-amber">{t('queue.because', { words: words.join(', ') })}</p>
      )}
    </article>
  )
}

/** No, with a word to who wrote it or without. */
function No({ onNo, onBack }: { onNo: (word: string) => void; onBack: () => void }) {
  const { t } = useTranslation()
  const [word, setWord] = useState('')
  const field = useRef<HTMLInputElement>(null)
  useEffect(() => field.current?.focus(), [])
  function submit(e: FormEvent) {
    e.preventDefault()
    onNo(word)
  }
  return (
    <form className="flex flex-col gap-2" data-own-escape onSubmit={submit}>
      <Keys on={{ escape: onBack }} />
      <label className="font-semibold" htmlFor="no-word">
        {t('queue.word')}
      </label>
      <input
        id="no-word"
        ref={field}
        maxLength={200}
        value={word}
        onChange={(e) => setWord(e.target.value)}
        className="rounded-lg border border-edge bg-paper px-3 py-2"
      />
      <div className="flex gap-2">
        <Button look="main" type="submit">
          {t(word.trim() ? 'queue.noWith' : 'queue.noWithout')}
        </Button>
        <Button onClick={onBack}>{t('queue.back')}</Button>
      </div>
    </form>
  )
}
