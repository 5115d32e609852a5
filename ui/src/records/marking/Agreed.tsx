import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { Button } from '../../kit/Button'
import { LevelName } from '../../kit/LevelBadge'
import type { Agreement, Criterion, Frame, Kept } from '../../wire/types.gen'

type Props = {
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
export function Agreed({ session, agreement: a, name, students, frames, whole }: Props) {
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
