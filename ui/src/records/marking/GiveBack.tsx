import { Download, PenLine, Printer, Undo2 } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { Button } from '../../kit/Button'
import { Refusal } from '../../kit/Refusal'
import { Switch } from '../../kit/fields/Switch'
import { Dialog } from '../../kit/windows/Dialog'
import { call } from '../../wire/http'
import type { Criterion, Frame, GiveBack as Give, Kept, SetBlind } from '../../wire/types.gen'
import { Agreed } from './Agreed'
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
