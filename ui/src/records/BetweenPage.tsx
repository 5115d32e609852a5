import { useInfiniteQuery, useQuery } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import { useParams, useSearchParams } from 'react-router'
import { Thumbnail } from '../frame/paint/Thumbnail'
import { Button } from '../kit/Button'
import { Page } from '../kit/Page'
import { Refusal } from '../kit/Refusal'
import { ToSignIn } from '../kit/ToSignIn'
import { useTitle } from '../kit/hooks/useTitle'
import { useStills } from '../line/Stills'
import { call, codeOf } from '../wire/http'
import type { Frame, RecordReply, SheetThen, TwoMoments } from '../wire/types.gen'
import { clock } from '../words/words'

const PAGE = 12

/** A frame of a lesson at two of its moments, side by side, with what changed between them. */
export function BetweenPage() {
  const { t } = useTranslation()
  const { session = '' } = useParams()
  useTitle(t('stills.compare'))
  const [params, setParams] = useSearchParams()
  const kept = useQuery({
    queryKey: ['record', session],
    queryFn: () => call<RecordReply>('GET', `/sessions/${session}/record`),
  })
  const stills = useStills(session).data?.stills ?? []
  const about = kept.data?.session
  const frames = kept.data?.record.board.frames ?? []
  const began = about ? new Date(about.startedAt).getTime() : 0
  const moments = [
    { at: began, name: t('stills.begin') },
    ...stills,
    { at: Number.MAX_SAFE_INTEGER, name: t('stills.end') },
  ]
  const asked = (key: string) => Number(params.get(key) ?? NaN)
  const at = (key: string, usual: number) => moments.find((m) => m.at === asked(key))?.at ?? usual
  const one = at('one', stills[0]?.at ?? began)
  const other = at('other', stills[1]?.at ?? Number.MAX_SAFE_INTEGER)
  const frame = frames.find((f) => f.id === params.get('frame')) ?? frames[0]
  const found = useInfiniteQuery({
    queryKey: ['between', session, frame?.id, one, other],
    enabled: frame !== undefined,
    initialPageParam: 0,
    queryFn: ({ pageParam }) =>
      call<TwoMoments>(
        'GET',
        `/sessions/${session}/between?frame=${frame!.id}&one=${one}&other=${other}&from=${pageParam}`,
      ),
    getNextPageParam: (last, all) => (last.more ? all.length * PAGE : undefined),
  })
  const failed = kept.error ?? found.error
  const problem = failed ? codeOf(failed) : null
  if (problem === 'sign-in-needed') return <ToSignIn />
  const choose = (key: string) => (value: string) => {
    const next = new URLSearchParams(params)
    next.set(key, value)
    setParams(next, { replace: true })
  }
  const sheets = found.data?.pages.flatMap((p) => p.sheets) ?? []
  const nameOf = (owner: string) =>
    kept.data?.record.students.find((s) => s.id === owner)?.name ??
    t(owner === 'class' ? 'stills.class' : 'stills.group', { n: owner.replace(/\D+/g, '') })
  const field = 'min-w-0 rounded-lg border border-edge bg-paper px-2 py-1.5'
  return (
    <Page title={t('stills.compare')} back={{ to: `/records/${session}`, name: t('marking.toRecord') }}>
      <Refusal code={problem} />
      {!kept.data && !problem && <p role="status">{t('loading')}</p>}
      {frame && (
        <>
          <div className="flex flex-wrap gap-4">
            <label className="flex items-center gap-2 font-semibold">
              {t('stills.frame')}
              <select className={field} value={frame.id} onChange={(e) => choose('frame')(e.target.value)}>
                {frames.map((f, i) => (
                  <option key={f.id} value={f.id}>
                    {i + 1}. {f.title}
                  </option>
                ))}
              </select>
            </label>
            {(
              [
                ['one', one],
                ['other', other],
              ] as const
            ).map(([key, value]) => (
              <label key={key} className="flex items-center gap-2 font-semibold">
                {t(`stills.${key}`)}
                <select className={field} value={value} onChange={(e) => choose(key)(e.target.value)}>
                  {moments.map((m, i) => (
                    <option key={i} value={m.at}>
                      {m.name} {m.at > began && m.at < Number.MAX_SAFE_INTEGER ? clock(m.at) : ''}
                    </option>
                  ))}
                </select>
              </label>
            ))}
          </div>
          {found.isPending && <p role="status">{t('loading')}</p>}
          {found.data && sheets.length === 0 && <p className="text-slate">{t('stills.empty')}</p>}
          <ul className="flex flex-col gap-6">
            {sheets.map((s) => (
              <Sheet key={s.owner} sheet={s} frame={frame} name={nameOf(s.owner)} />
            ))}
          </ul>
          {found.hasNextPage && (
            <Button className="self-center" onClick={() => void found.fetchNextPage()}>
              {t('stills.more')}
            </Button>
          )}
        </>
      )}
    </Page>
  )
}

function Sheet({ sheet, frame, name }: { sheet: SheetThen; frame: Frame; name: string }) {
  const { t } = useTranslation()
  const { new: came, gone, changed } = sheet.between
  const said = [
    came.length > 0 && t('stills.new', { count: came.length }),
    gone.length > 0 && t('stills.gone', { count: gone.length }),
    changed.length > 0 && t('stills.changed', { count: changed.length }),
  ].filter(Boolean)
  return (
    <li>
      <h2 className="mb-1 text-lg">
        <bdi>{name}</bdi>
      </h2>
      <p className="mb-2 text-slate">{said.length > 0 ? said.join(' · ') : t('stills.same')}</p>
      <div className="grid gap-3 sm:grid-cols-2">
        {(['before', 'after'] as const).map((when) => (
          <div key={when} className="overflow-hidden rounded-xl border border-line">
            <Thumbnail frame={frame} marks={sheet[when]} width={480} label={t(`stills.${when}`, { name })} />
          </div>
        ))}
      </div>
    </li>
  )
}
