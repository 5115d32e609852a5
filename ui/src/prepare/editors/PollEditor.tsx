import { ImagePlus, Plus, Trash2 } from 'lucide-react'
import { useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 as uuidv7 } from 'uuid'
import { useHand } from '../../frame/hand/useHand'
import { pictureURL } from '../../frame/pictures/pictures'
import { Button } from '../../kit/Button'
import { Dialog } from '../../kit/windows/Dialog'
import { optionsOf, withOptions } from '../../polls/kinds'
import type { Element, Option } from '../../wire/types.gen'
import { LibraryDialog } from '../LibraryDialog'
import { useDeskState } from '../useDesk'
import { useSaving } from '../useSaving'

type Props = { mark: Element & { kind: 'poll' }; onClose: () => void }

const MAX_OPTIONS = { choice: 12, rank: 8 }

/** Where a choice question is written: its answers as text or picture, right ones marked or none. */
export function PollEditor({ mark, onClose }: Props) {
  const { t } = useTranslation()
  const hand = useHand()
  const objectives = useDeskState((s) => s.outline?.objectives ?? [])
  const [poll, setPoll] = useState(mark.poll)
  const [picturing, setPicturing] = useState<string | null>(null)
  const options = optionsOf(poll)
  const ranks = poll.kind === 'rank'
  const offer = (to: Option[]) => setPoll(withOptions(poll, to))
  const choose = (id: string, part: Partial<Option>) => offer(options.map((o) => (o.id === id ? { ...o, ...part } : o)))
  const saved = useRef(JSON.stringify(mark.poll))
  useSaving(poll, () => {
    // Answers without words or picture are those that nobody wanted.
    const filled = options.filter((c) => c.text.trim() || c.picture)
    const now = withOptions(poll, filled.length >= 2 ? filled : options)
    if (JSON.stringify(now) === saved.current) return
    saved.current = JSON.stringify(now)
    hand.do([{ kind: 'set', set: { mark: mark.id, poll: now } }])
  })
  const right = options.filter((c) => c.right).length
  return (
    <Dialog open onOpenChange={onClose} title={t('prepare.pollTitle')}>
      <label className="mb-1 block font-semibold" htmlFor="poll-question">
        {t('prepare.question')}
      </label>
      <textarea
        id="poll-question"
        rows={2}
        maxLength={600}
        value={poll.text}
        onChange={(e) => setPoll({ ...poll, text: e.target.value })}
        className="mb-4 w-full rounded-lg border border-edge px-2.5 py-1.5"
      />
      <fieldset>
        <legend className="mb-1 font-semibold">{t('prepare.answers')}</legend>
        <ol className="flex flex-col gap-2">
          {options.map((c, i) => (
            <li key={c.id} className="flex items-center gap-2">
              {!ranks && (
                <label className="flex shrink-0 items-center gap-1.5 text-sm" title={t('prepare.markRight')}>
                  <input
                    type="checkbox"
                    className="size-5 accent-fern"
                    checked={c.right ?? false}
                    onChange={(e) => choose(c.id, { right: e.target.checked })}
                    aria-label={t('prepare.isRight', { n: i + 1 })}
                  />
                </label>
              )}
              {c.picture && <img src={pictureURL(c.picture)} alt="" className="h-10 w-14 rounded object-cover" />}
              <input
                aria-label={t('prepare.answer', { n: i + 1 })}
                value={c.text}
                maxLength={300}
                placeholder={c.picture ? t('prepare.answerAlt') : t('prepare.answer', { n: i + 1 })}
                onChange={(e) => choose(c.id, { text: e.target.value })}
                className="min-w-0 grow rounded-lg border border-edge px-2.5 py-1.5"
              />
              <Button
                look="quiet"
                aria-label={t(c.picture ? 'prepare.noPicture' : 'prepare.withPicture', { n: i + 1 })}
                onClick={() => (c.picture ? choose(c.id, { picture: undefined }) : setPicturing(c.id))}
              >
                <ImagePlus size={17} aria-hidden="true" />
              </Button>
              <Button
                look="quiet"
                disabled={options.length <= 2}
                aria-label={t('prepare.dropAnswer', { n: i + 1 })}
                onClick={() => offer(options.filter((o) => o.id !== c.id))}
              >
                <Trash2 size={17} aria-hidden="true" />
              </Button>
            </li>
          ))}
        </ol>
      </fieldset>
      <p className="mt-2 text-sm text-slate" role="status">
        {ranks ? t('prepare.ranked') : right === 0 ? t('prepare.noRight') : t('prepare.someRight', { count: right })}
      </p>
      {objectives.length > 0 && (
        <fieldset className="mt-3">
          <legend className="mb-1 font-semibold">{t('prepare.asksAbout')}</legend>
          {objectives.map((o) => (
            <label key={o.id} className="flex items-start gap-2 py-0.5">
              <input
                type="checkbox"
                className="mt-1 size-4 accent-dusk"
                checked={poll.objectives?.includes(o.id) ?? false}
                onChange={(e) => {
                  const others = (poll.objectives ?? []).filter((id) => id !== o.id)
                  setPoll({ ...poll, objectives: e.target.checked ? [...others, o.id] : others })
                }}
              />
              {o.text}
            </label>
          ))}
        </fieldset>
      )}
      <div className="mt-4 flex justify-between gap-2">
        <Button
          disabled={options.length >= MAX_OPTIONS[poll.kind]}
          onClick={() => offer([...options, { id: uuidv7(), text: '' }])}
        >
          <Plus size={17} aria-hidden="true" />
          {t('prepare.addAnswer')}
        </Button>
        <Button look="main" onClick={onClose}>
          {t('prepare.done')}
        </Button>
      </div>
      {picturing && (
        <LibraryDialog
          onClose={() => setPicturing(null)}
          onPick={({ id, name }) => {
            const choice = options.find((c) => c.id === picturing)
            choose(picturing, { picture: id, text: choice?.text || name })
            setPicturing(null)
          }}
        />
      )}
    </Dialog>
  )
}
