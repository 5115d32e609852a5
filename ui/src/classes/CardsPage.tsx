import { useQuery } from '@tanstack/react-query'
import { Printer } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import { useParams } from 'react-router'
import { Button } from '../kit/Button'
import { Page } from '../kit/Page'
import { Refusal } from '../kit/Refusal'
import { ToSignIn } from '../kit/ToSignIn'
import { useTitle } from '../kit/hooks/useTitle'
import { call, codeOf } from '../wire/http'
import type { Cards, NameCard } from '../wire/types.gen'

/** The name cards of a class: a page to print and cut. */
export function CardsPage() {
  const { t } = useTranslation()
  const { class: id } = useParams()
  const cards = useQuery({
    queryKey: ['cards', id],
    queryFn: () => call<Cards>('GET', `/classes/${id}/cards`),
    staleTime: 0,
  })
  useTitle(t('cards.title'))
  const problem = cards.isError ? codeOf(cards.error) : null
  if (problem === 'sign-in-needed') return <ToSignIn />
  return (
    <Page
      title={t('cards.title')}
      back={{ to: `/classes/${id}`, name: cards.data?.class ?? t('classes.title') }}
      action={
        <Button look="main" disabled={!cards.data} onClick={() => print()}>
          <Printer size={17} aria-hidden="true" />
          {t('cards.print')}
        </Button>
      }
    >
      <p className="text-slate print:hidden">{t('cards.text')}</p>
      {cards.isPending && <p role="status">{t('loading')}</p>}
      <Refusal code={problem} />
      {cards.data && (
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(17rem,1fr))] gap-3 print:grid-cols-2 print:gap-0">
          {cards.data.cards.map((card) => (
            <Card key={card.student} card={card} of={cards.data.class} />
          ))}
        </ul>
      )}
    </Page>
  )
}

function Card({ card, of }: { card: NameCard; of: string }) {
  const { t } = useTranslation()
  return (
    <li className="flex break-inside-avoid items-center gap-3 rounded-xl border border-line bg-paper p-3 print:rounded-none print:border-dashed">
      <svg
        role="img"
        aria-label={t('cards.qr', card)}
        viewBox={`0 0 ${card.units} ${card.units}`}
        shapeRendering="crispEdges"
        className="size-28 shrink-0 bg-white"
      >
        <path d={card.qr} className="fill-black" />
      </svg>
      <div className="min-w-0">
        <p className="font-display text-lg leading-tight font-semibold break-words">
          <bdi>{card.name}</bdi>
        </p>
        <p className="text-sm text-slate">
          <bdi>{of}</bdi>
        </p>
        <p className="mt-2 font-display text-xl font-bold tracking-wider whitespace-nowrap">{card.code}</p>
        <p className="text-xs text-slate">{t('cards.where', { host: location.host })}</p>
      </div>
    </li>
  )
}
