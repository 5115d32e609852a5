import { useTranslation } from 'react-i18next'
import { call } from '../wire/http'
import type { FrontStage, Invitation } from '../wire/types.gen'
import { useAsked } from '../wire/hooks/useAsked'
import { useLessonState } from '../wire/hooks/useLesson'

const halves = (code: string) => `${code.slice(0, 3)} ${code.slice(3)}`
/** An address as it is typed. */
const typed = (link: string) => link.replace(/^https?:\/\//, '').replace(/\/join\/.*$/, '')

/** Where to join, by what code. */
export function useInvitation(session: string, code: string | undefined) {
  const asked = useAsked(
    code ? () => call<Invitation>('GET', `/sessions/${session}/invitation`) : null,
    `invitation ${session} ${code ?? ''}`,
  )
  return code && asked.data ? { address: typed(asked.data.link), code: halves(code), link: asked.data.link } : null
}

/** Up to how many names find room. */
const ALL_SEEN = 60

/** How to join, read from the back row; who is in; and the first task. */
export function Gathering({ session, stage }: { session: string; stage: FrontStage }) {
  const { t } = useTranslation()
  const people = useLessonState((s) => s.people)
  const invitation = useInvitation(session, stage.code)
  // Who came last stands first: they look for their name.
  const names = [...people.values()].map((p) => p.name).reverse()
  // All names are to be read: the more there are, the smaller they stand.
  const letters = names.length <= 12 ? 4.4 : names.length <= 40 ? 3.2 : 2.5
  return (
    <div className="flex size-full flex-col gap-[2.5cqh] p-[4cqh]">
      <div className="flex items-center gap-[5cqw]">
        <div className="min-w-0 grow">
          <h1 className="font-display text-[5cqh] leading-tight font-semibold">{stage.title}</h1>
          {invitation ? (
            <>
              <p className="mt-[3cqh] text-[4.5cqh] break-all">{t('front.joinAt', invitation)}</p>
              <p className="font-display text-[19cqh] leading-none font-bold tracking-[0.08em] whitespace-nowrap text-glow-deep">
                {invitation.code}
              </p>
            </>
          ) : (
            <p className="mt-[3cqh] text-[4.5cqh]">{t('front.shut')}</p>
          )}
        </div>
        {invitation && (
          <img
            src={`/api/sessions/${session}/qr.svg`}
            alt={t('front.qr', invitation)}
            className="size-[44cqh] shrink-0 rounded-[1.5cqh]"
          />
        )}
      </div>
      {stage.frame.id && (
        <div className="rounded-[1.5cqh] border-[0.3cqh] border-line bg-snow px-[2.5cqh] py-[1.5cqh]">
          <p className="text-[2.6cqh] text-slate">{t('front.firstTask')}</p>
          <p dir="auto" className="line-clamp-2 text-[4.4cqh] leading-tight font-semibold">
            {stage.frame.prompt || stage.frame.title}
          </p>
        </div>
      )}
      <div className="min-h-0 grow overflow-hidden">
        <p className="text-[3cqh] text-slate">
          {t(names.length > ALL_SEEN ? 'front.inLast' : 'front.in', { count: names.length })}
        </p>
        <ul className="flex flex-wrap gap-x-[1.2em] font-semibold" style={{ fontSize: `${letters}cqh` }}>
          {names.map((name, i) => (
            <li key={i} className="max-w-full truncate">
              {name}
            </li>
          ))}
        </ul>
      </div>
    </div>
  )
}
