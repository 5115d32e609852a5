import { Copy, X } from 'lucide-react'
import { useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useBench } from '../wire/hooks/useLesson'
import { Button } from './Button'

/** Writing that was not taken, to be copied out. */
export default function Lost({ texts }: { texts: readonly string[] }) {
  const { t } = useTranslation()
  const bench = useBench()
  const [copied, setCopied] = useState<'copied' | 'byHand' | null>(null)
  const list = useRef<HTMLUListElement>(null)
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(texts.join('\n\n'))
      setCopied('copied')
    } catch {
      // Without HTTPS, or forbidden: marked, so that the device's own menu copies it.
      getSelection()?.selectAllChildren(list.current!)
      setCopied('byHand')
    }
  }
  return (
    <section
      aria-label={t('notice.lost')}
      className="pointer-events-auto w-full max-w-md rounded-xl border-2 border-amber bg-paper p-3 text-start shadow-lg"
    >
      <h2 className="text-base">{t('notice.lost')}</h2>
      <ul ref={list} className="my-2 max-h-32 overflow-auto rounded-lg bg-mist p-2">
        {texts.map((text, i) => (
          <li key={i} dir="auto" className="break-words whitespace-pre-wrap">
            {text}
          </li>
        ))}
      </ul>
      <p className="flex gap-2">
        <Button onClick={() => void copy()}>
          <Copy size={16} aria-hidden="true" />
          {t(copied === 'copied' ? 'notice.copied' : 'notice.copy')}
        </Button>
        <Button onClick={() => bench.letGo()}>
          <X size={16} aria-hidden="true" />
          {t('notice.letGo')}
        </Button>
      </p>
      <p role="status" className="mt-2 text-sm empty:hidden">
        {copied === 'byHand' && t('notice.byHand')}
      </p>
    </section>
  )
}
