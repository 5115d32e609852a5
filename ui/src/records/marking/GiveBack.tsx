import { Download, PenLine, Printer, Undo2 } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { Button } from '../../kit/Button'
import { LevelName } from '../../kit/LevelBadge'
import { Refusal } from '../../kit/Refusal'
import { Switch } from '../../kit/fields/Switch'
import { Dialog } from '../../kit/windows/Dialog'
import { call } from '../../wire/http'
import type { Agreement, Criterion, Frame, GiveBack as Give, Kept, SetBlind } from '../../wire/types.gen'
import type { useMarking } from './useMarking'

type Props = {
  session: string
  students: Kept[]
  frames: Frame[]
  /** By what whole lessons are judged. */
  criteria: Criterion[]
  marking: ReturnType<typeof useMarking>
}

const link =
  'inline-flex items-center gap-2 rounded-lg border border-edge bg-paper px-3 py-1.5 font-semibold hover:bg-mist'

/** Levels and words of a lesson as a whole: to judge, to give back, and how two teachers agree. */
export function GiveBack({ session, students, frames, criteria, marking }: Props) {
  const { t } = useTranslation()
  const [asking, ask] = useState(false)
  const { data, act, problem } = marking
  if (!data) return <Refusal code={problem} />
  const own = data.me === data.owner
  const given = students.filter((s) => data.given[s.id] !== undefined)
  const waiting = students.filter((s) => data.given[s.id] === undefined)
  const give = (who: Kept[], undo?: boolean) =>
    act(() => call('POST', `/sessions/${session}/given`, { students: who.map((s) => s.id), undo } satisfies Give))
  return (
    <section aria-labelledby="judged" className="flex flex-col gap-3">
      <h2 id="judged" className="text-xl">
        {t('marking.giveTitle')}
      </h2>
      <Refusal code={problem} />
      <div className="flex flex-wrap items-center gap-3">
        <Link to={`/records/${session}/marking`} className={link}>
          <PenLine size={17} aria-hidden="true" />
          {t('marking.open')}
        </Link>
        {own && (
          <Link to={`/records/${session}/letters`} className={link}>
            <Printer size={17} aria-hidden="true" />
            {t('marking.print')}
          </Link>
        )}
        <a href={`/api/sessions/${session}/levels.xlsx`} download className={link}>
          <Download size={17} aria-hidden="true" />
          {t('marking.xlsx')}
        </a>
        {own && waiting.length > 0 && (
          <Button look="main" onClick={() => ask(true)}>
            {t('marking.give', { count: waiting.length })}
          </Button>
        )}
      </div>
      <p className="text-slate">
        {t('marking.judged', { count: data.judged.filter((j) => j.by === data.me).length })}
        {given.length > 0 && ` · ${t('marking.given', { count: given.length })}`}
        {own && given.length > 0 && (
          <Button look="quiet" onClick={() => void give(given, true)}>
            <Undo2 size={16} aria-hidden="true" className="rtl:-scale-x-100" />
            {t('marking.undo')}
          </Button>
        )}
      </p>
      {own && (
        <Switch
          label={t('marking.blind')}
          help={t('marking.blindHelp')}
          on={data.blind}
          onSwitch={(blind) => void act(() => call('POST', `/sessions/${session}/blind`, { blind } satisfies SetBlind))}
        />
      )}
      {data.agreements.map((a) => (
        <Agreed
          key={a.other}
          session={session}
          agreement={a}
          name={data.names[a.other] ?? ''}
          students={students}
          frames={frames}
          whole={criteria}
        />
      ))}
      {asking && (
        <Dialog
          open
          onOpenChange={ask}
          title={t('marking.give', { count: waiting.length })}
          text={t('marking.giveAsk')}
        >
          <div className="mt-4 flex justify-end gap-3">
            <Button onClick={() => ask(false)}>{t('cancel')}</Button>
            <Button
              look="main"
              onClick={() => {
                ask(false)
                void give(waiting)
              }}
            >
              {t('marking.give', { count: waiting.length })}
            </Button>
          </div>
        </Dialog>
      )}
    </section>
  )
}

type AgreedProps = {
  session: string
  agreement: Agreement
  name: string
  students: Kept[]
  frames: Frame[]
  whole: Criterion[]
}

/** How many differences stand there before one asks for more. */
const FEW = 8

/** How far two teachers agree, in words and with how far so few can be off, and where they differ. */
function Agreed({ session, agreement: a, name, students, frames, whole }: AgreedProps) {
  const { t, i18n } = useTranslation()
  const [most, show] = useState(FEW)
  if (a.of === 0) return null
  const figure = (x: number) =>
    new Intl.NumberFormat(i18n.language, { minimumFractionDigits: 2, maximumFractionDigits: 2 }).format(x)
  const kappa = a.weighted && {
    kappa: figure(a.weighted.kappa),
    low: figure(a.weighted.span.low),
    high: figure(a.weighted.span.high),
  }
  return (
    <section aria-label={t('marking.agree', { name })} className="rounded-2xl border border-line bg-paper p-4">
      <h3 className="font-semibold">{t('marking.agree', { name })}</h3>
      <p>
        {t('marking.agreeSame', a)}{' '}
        {kappa && a.words
          ? t('marking.agreeKappa', { words: t(`marking.agreeWords_${a.words}`), ...kappa })
          : t('marking.agreeNone')}
        {a.plain && ` ${t('marking.agreePlain', { kappa: figure(a.plain.kappa) })}`}
      </p>
      {a.apart.length > 0 && (
        <>
          <h4 className="mt-2 text-sm font-semibold text-slate">{t('marking.apart')}</h4>
          <ul className="flex flex-col gap-1">
            {a.apart.slice(0, most).map((d) => {
              const student = students.find((s) => s.id === d.student)
              const frame = frames.find((f) => f.id === d.frame)
              const by = (frame ? frame.criteria : whole)?.find((c) => c.id === d.criterion)
              return (
                <li
                  key={`${d.student} ${d.frame} ${d.mark} ${d.criterion}`}
                  className="flex flex-wrap items-center gap-x-3 gap-y-1"
                >
                  <Link
                    to={`/records/${session}/marking?frame=${d.frame ?? 'whole'}&student=${d.student}`}
                    aria-label={t('marking.differAt', { name: student?.name })}
                    className="font-semibold text-dusk underline underline-offset-4"
                  >
                    <bdi>{student?.name}</bdi>
                  </Link>
                  <span className="text-slate">
                    <bdi>{frame?.title ?? t('marking.whole')}</bdi>
                    {by && (
                      <>
                        {' · '}
                        <bdi>{by.name}</bdi>
                      </>
                    )}
                  </span>
                  <span className="inline-flex flex-wrap items-center gap-2">
                    {t('marking.youSay')}
                    <LevelName level={a.scale[d.one]!} />
                    {t('marking.theySay', { name })}
                    <LevelName level={a.scale[d.other]!} />
                  </span>
                </li>
              )
            })}
          </ul>
          {a.apart.length > most && (
            <Button look="quiet" onClick={() => show(most * 4)}>
              {t('stills.more')}
            </Button>
          )}
        </>
      )}
    </section>
  )
}
