import { useQuery } from '@tanstack/react-query'
import { Upload } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { pictureURL } from '../frame/pictures/pictures'
import { FileButton } from '../kit/fields/FileButton'
import { Refusal } from '../kit/Refusal'
import { Dialog } from '../kit/windows/Dialog'
import { call, codeOf, send } from '../wire/http'
import type { Code, Library, LibraryItem, Uploaded } from '../wire/types.gen'

type Props = { onClose: () => void; onPick: (item: LibraryItem) => void }

/** Pictures of the school: those used before, and illustrations to search by word. */
export function LibraryDialog({ onClose, onPick }: Props) {
  const { t } = useTranslation()
  const [words, setWords] = useState('')
  /** A picture is being fetched: a second press adds no second one. */
  const [busy, setBusy] = useState(false)
  const [refused, setRefused] = useState<Code | null>(null)
  const found = useQuery({
    queryKey: ['library', words],
    queryFn: () => call<Library>('GET', `/library?q=${encodeURIComponent(words)}`),
    placeholderData: (before) => before,
  })
  async function pickOnce(fetching: () => Promise<LibraryItem>) {
    setBusy(true)
    setRefused(null)
    try {
      onPick(await fetching())
    } catch (error) {
      setRefused(codeOf(error))
    }
    setBusy(false)
  }
  const take = (illustration: LibraryItem) =>
    pickOnce(async () => ({
      ...illustration,
      ...(await call<LibraryItem>('POST', '/library', { id: illustration.id })),
    }))
  const bring = (picture: File) =>
    pickOnce(async () => {
      const up = await send<Uploaded>(`/pictures?name=${encodeURIComponent(picture.name)}`, picture, () => {}).done
      return { id: up.picture, name: picture.name.replace(/\.[^.]*$/, ''), width: up.width, height: up.height }
    })
  const grid = 'grid grid-cols-3 gap-3 sm:grid-cols-5'
  return (
    <Dialog open wide onOpenChange={onClose} title={t('library.title')} text={t('library.text')}>
      <div className="mb-4 flex flex-wrap gap-2">
        <input
          type="search"
          aria-label={t('library.search')}
          placeholder={t('library.search')}
          value={words}
          onChange={(e) => setWords(e.target.value)}
          className="min-w-0 grow basis-44 rounded-lg border border-edge px-3 py-2"
        />
        <FileButton
          icon={Upload}
          label={t('library.upload')}
          accept="image/*"
          disabled={busy}
          onFile={(picture) => void bring(picture)}
        />
      </div>
      <p role="status" className={busy ? 'mb-4 text-slate' : 'sr-only'}>
        {busy ? t('library.fetching') : ''}
      </p>
      <Refusal code={refused ?? (found.error ? codeOf(found.error) : null)} />
      {found.data && (
        <>
          {found.data.found.length > 0 && (
            <section aria-labelledby="illustrations" className="mb-4">
              <h3 id="illustrations" className="mb-2 font-semibold">
                {t('library.illustrations')}
              </h3>
              <ul className={grid}>
                {found.data.found.map((item) => (
                  <Item
                    key={item.id}
                    item={item}
                    src={`/api/illustrations/${item.id}`}
                    busy={busy}
                    onPick={() => void take(item)}
                  />
                ))}
              </ul>
            </section>
          )}
          <section aria-labelledby="used">
            <h3 id="used" className="mb-2 font-semibold">
              {t('library.used')}
            </h3>
            {found.data.pictures.length === 0 ? (
              <p className="text-slate">{t('library.none')}</p>
            ) : (
              <ul className={grid}>
                {found.data.pictures.map((item) => (
                  <Item key={item.id} item={item} src={pictureURL(item.id)} busy={busy} onPick={() => onPick(item)} />
                ))}
              </ul>
            )}
          </section>
        </>
      )}
    </Dialog>
  )
}

type ItemProps = { item: LibraryItem; src: string; busy: boolean; onPick: () => void }

function Item({ item, src, busy, onPick }: ItemProps) {
  const { t } = useTranslation()
  return (
    <li>
      <button
        type="button"
        disabled={busy}
        onClick={onPick}
        className="w-full overflow-hidden rounded-lg border border-line bg-snow p-2 text-sm hover:border-dusk disabled:opacity-60"
      >
        <img src={src} alt="" loading="lazy" className="mx-auto h-24 object-contain" />
        <span className="mt-1 block truncate">{item.name || t('library.unnamed')}</span>
      </button>
    </li>
  )
}
