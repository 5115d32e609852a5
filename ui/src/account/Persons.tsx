import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import { Confirm } from '../kit/windows/Confirm'
import { ReceiptDialog } from '../kit/windows/ReceiptDialog'
import { Refusal } from '../kit/Refusal'
import { call, codeOf, download } from '../wire/http'
import { useAct } from '../wire/hooks/useAct'
import type { PersonItem, Persons as Reply, Receipt } from '../wire/types.gen'

/** Students of all classes, found by name: what is kept about them, and erasing it. */
export function Persons() {
  const { t } = useTranslation()
  const [name, setName] = useState('')
  const { act, problem } = useAct()
  const [erasing, erase] = useState<PersonItem | null>(null)
  const [receipt, setReceipt] = useState<{ of: string; receipt: Receipt } | null>(null)
  const found = useQuery({
    queryKey: ['persons', name.trim()],
    queryFn: () => call<Reply>('GET', `/persons?name=${encodeURIComponent(name.trim())}`),
    enabled: name.trim().length > 1,
    staleTime: 0,
  })
  return (
    <>
      <input
        type="search"
        aria-label={t('rights.search')}
        placeholder={t('rights.search')}
        className="max-w-md rounded-lg border border-edge bg-paper px-3 py-2"
        value={name}
        onChange={(e) => setName(e.target.value)}
      />
      <Refusal code={problem ?? (found.isError ? codeOf(found.error) : null)} />
      {found.data?.persons.length === 0 && <p className="text-slate">{t('rights.none')}</p>}
      <ul className="divide-y divide-line empty:hidden">
        {found.data?.persons.map((p) => (
          <li key={p.id} className="flex flex-wrap items-center gap-3 py-2">
            <span className="min-w-0 grow">
              <bdi className="font-semibold">{p.name}</bdi> <span className="text-slate">{p.classes.join(', ')}</span>
            </span>
            <Button onClick={() => void act(() => download(`/persons/${p.id}/file`, 'person.zip'))}>
              {t('rights.file')}
            </Button>
            <Button look="rose" aria-label={t('rights.eraseOf', p)} onClick={() => erase(p)}>
              {t('rights.erase')}
            </Button>
          </li>
        ))}
      </ul>
      <Confirm
        open={erasing !== null}
        onOpenChange={() => erase(null)}
        title={t('rights.eraseTitle', erasing ?? undefined)}
        text={t('rights.eraseText')}
        yes={t('rights.eraseYes')}
        onYes={async () => {
          const gone = await call<Receipt>('DELETE', `/persons/${erasing!.id}`)
          setReceipt({ of: erasing!.name, receipt: gone })
          erase(null)
          await found.refetch()
        }}
      />
      {receipt && <ReceiptDialog name={receipt.of} receipt={receipt.receipt} onClose={() => setReceipt(null)} />}
    </>
  )
}
