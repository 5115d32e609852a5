import { Check, CircleDot, X } from 'lucide-react'
import { useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import { textOf } from '../frame/paint/geometry'
import { Thumbnail } from '../frame/paint/Thumbnail'
import { GridGiven } from '../grid/GridGiven'
import { LevelBadge } from '../kit/LevelBadge'
import { Listen } from '../polls/sound/Listen'
import { marksOf } from '../rules/answers'
import type { Back, BackAnswer, BackFrame, BackWord, Element } from '../wire/types.gen'
import '../words/windows'
import { when } from '../words/words'

/** What goes back to a student of a lesson: their own work, what was right, and the teacher's words. */
export function Letter({ letter, level = 1 }: { letter: Back; level?: 1 | 2 }) {
  const { t } = useTranslation()
  const Heading = level === 1 ? 'h1' : 'h2'
  return (
    <article className="flex flex-col gap-6">
      <header>
        <p className="text-slate">
          <bdi>{letter.title}</bdi> · {when(new Date(letter.at).toISOString())}
        </p>
        <Heading className="text-3xl">
          <bdi>{letter.name}</bdi>
        </Heading>
      </header>
      {letter.whole && <Words word={letter.whole} title={t('given.whole')} />}
      {letter.frames.length === 0 && <p className="text-slate">{t('given.nothing')}</p>}
      {letter.frames.map((f) => (
        <OneFrame key={f.frame.id} on={f} />
      ))}
    </article>
  )
}

function Words({ word, title }: { word: BackWord; title: string }) {
  return (
    <div
      role="group"
      aria-label={title}
      className="rounded-2xl border border-line border-s-4 border-s-dusk bg-paper px-4 py-3"
    >
      <p className="mb-1 font-semibold text-slate">{title}</p>
      {word.level && (
        <p className="mb-1">
          <LevelBadge level={word.level} />
        </p>
      )}
      {word.grid && <GridGiven levels={word.grid} />}
      {word.comment && (
        <p dir="auto" className="text-lg break-words whitespace-pre-wrap">
          {word.comment}
        </p>
      )}
      {word.voice && (
        <div className="mt-2 print:hidden">
          <Listen sound={word.voice} />
        </div>
      )}
    </div>
  )
}

const noInk: Element[] = []

function OneFrame({ on }: { on: BackFrame }) {
  const { t } = useTranslation()
  const title = on.frame.title || t('given.frame', { n: on.n })
  // What the teacher drew lies on top of it.
  const ink = on.judged?.ink ?? noInk
  const marks = useMemo(() => [...on.marks, ...marksOf(on.answers), ...ink], [on, ink])
  // What is small in a picture on a phone stands below it, to be read.
  const written = on.marks.filter((m) => textOf(m) !== '')
  return (
    <div role="group" aria-label={title} className="flex flex-col gap-3 break-inside-avoid">
      <h2 className="text-xl">
        {on.n}. <bdi>{on.frame.title}</bdi>
      </h2>
      {on.judged && <Words word={on.judged} title={t('given.frame', { n: on.n })} />}
      {(on.marks.length > 0 || ink.length > 0) && (
        <div className="overflow-hidden rounded-xl border border-line">
          <Thumbnail
            frame={on.frame}
            marks={marks}
            width={720}
            label={t(ink.length > 0 ? 'given.inked' : 'given.picture', { n: on.n })}
          />
        </div>
      )}
      {written.length > 0 && (
        <ul aria-label={t('given.written', { n: on.n })} className="flex flex-col gap-1">
          {written.map((m) => (
            <li key={m.id} dir="auto" className="rounded-lg bg-paper px-3 py-1.5 break-words whitespace-pre-wrap">
              {textOf(m)}
            </li>
          ))}
        </ul>
      )}
      {on.answers.map((a) => (
        <OneAnswer key={a.mark} answer={a} word={on.marked?.[a.mark]} />
      ))}
      {Object.entries(on.marked ?? {})
        .filter(([mark]) => !on.answers.some((a) => a.mark === mark))
        .map(([mark, word]) => {
          const of = on.marks.find((m) => m.id === mark)
          return (
            <Words
              key={mark}
              word={word}
              title={of?.kind === 'note' ? t('given.note', { text: of.note.text }) : t('given.mark')}
            />
          )
        })}
    </div>
  )
}

const signs = { right: Check, partly: CircleDot, wrong: X }
const looks = { right: 'text-fern-deep', partly: 'text-amber', wrong: 'text-rose' }

function OneAnswer({ answer, word }: { answer: BackAnswer; word?: BackWord }) {
  const { t } = useTranslation()
  const { verdict } = answer
  const Sign = verdict && signs[verdict]
  return (
    <div className="rounded-2xl border border-line bg-paper px-4 py-3">
      <p dir="auto" className="font-semibold">
        {answer.asked}
      </p>
      <p className="mt-1 flex flex-wrap items-center gap-x-2">
        <span className="text-slate">{t('given.yours')}</span>
        <b dir="auto">{answer.text || t('given.drawn')}</b>
        {Sign && (
          <span className={`inline-flex items-center gap-1 font-semibold ${looks[verdict]}`}>
            <Sign size={16} aria-hidden="true" />
            {t(`given.${verdict}`)}
          </span>
        )}
        {answer.late && <span className="text-slate">{t('given.late')}</span>}
      </p>
      {answer.right && verdict !== 'right' && (
        <p className="mt-1">
          <span className="text-slate">{t('given.rightIs')}</span> <b dir="auto">{answer.right}</b>
        </p>
      )}
      {answer.why && (
        <p dir="auto" className="mt-2 rounded-lg bg-fern-soft px-3 py-1.5">
          {answer.why}
        </p>
      )}
      {word && (
        <div className="mt-2">
          <Words word={word} title={t('given.said')} />
        </div>
      )}
    </div>
  )
}
