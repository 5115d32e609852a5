import { useQuery } from '@tanstack/react-query'
import { Code2, Copy } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { call, codeOf } from '../../wire/http'
import type { Code, LookLinks } from '../../wire/types.gen'
import { when } from '../../words/words'
import { Button } from '../Button'
import { Refusal } from '../Refusal'
import '../../words/windows'

/** What makes a link a piece of another page. */
const pieceOf = (link: string, title: string) =>
  `<iframe src="${link}" title="${title}" width="100%" height="640" loading="lazy" style="border:0"></iframe>`

/** The links by which anybody looks at work of a lesson or a board; each can be taken back. */
export function Looks({ of, id }: { of: string; id: string }) {
  const { t } = useTranslation()
  const [problem, tell] = useState<Code | null>(null)
  const [copied, copy] = useState('')
  const onClipboard = (text: string, as: string) =>
    void navigator.clipboard.writeText(text).then(
      () => copy(as),
      () => tell('failed'),
    )
  const query = useQuery({
    queryKey: ['looks', id],
    queryFn: () => call<LookLinks>('GET', `/${of}/${id}/looks`),
    staleTime: 0,
  })
  // A link that was just made is brought into sight.
  const section = useRef<HTMLElement>(null)
  const count = query.data?.looks.length
  const before = useRef<number>(undefined)
  useEffect(() => {
    if (count !== undefined && before.current !== undefined && count > before.current)
      section.current?.scrollIntoView({ block: 'end' })
    before.current = count
  }, [count])
  const drop = async (word: string) => {
    tell(null)
    try {
      await call('DELETE', `/looks/${word}`)
      await query.refetch()
    } catch (error) {
      tell(codeOf(error))
    }
  }
  if (!query.data || query.data.looks.length === 0)
    return <Refusal code={query.isError ? codeOf(query.error) : problem} />
  return (
    <section ref={section} aria-labelledby="looks" className="mt-5 border-t border-line pt-4">
      <h3 id="looks" className="mb-2 text-lg">
        {t('out.links')}
      </h3>
      <Refusal code={problem} />
      <ul className="flex flex-col gap-2">
        {query.data.looks.map((l) => (
          <li key={l.word} className="flex flex-wrap items-center gap-2">
            <span className="min-w-0 grow">
              <a
                href={l.link}
                target="_blank"
                rel="noreferrer"
                className="block truncate text-dusk underline underline-offset-4"
              >
                {l.link}
              </a>
              <span className="text-sm text-slate">
                {t(`out.what_${l.wish.what}`)} · {when(l.at)}
              </span>
            </span>
            <Button onClick={() => onClipboard(l.link, l.word)}>
              <Copy size={16} aria-hidden="true" />
              {t(copied === l.word ? 'out.copied' : 'out.copy')}
            </Button>
            {query.data.hosts.length > 0 && (
              <Button onClick={() => onClipboard(pieceOf(l.link, t('look.title')), `piece ${l.word}`)}>
                <Code2 size={16} aria-hidden="true" />
                {t(copied === `piece ${l.word}` ? 'out.copied' : 'out.copyPiece')}
              </Button>
            )}
            <Button onClick={() => void drop(l.word)}>{t('out.takeBack')}</Button>
          </li>
        ))}
      </ul>
      {query.data.hosts.length > 0 && (
        <p className="mt-2 text-sm text-slate">{t('out.pieceHelp', { hosts: query.data.hosts.join(', ') })}</p>
      )}
    </section>
  )
}
