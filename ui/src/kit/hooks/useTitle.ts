import { useEffect } from 'react'
import { useTranslation } from 'react-i18next'

/** Names the page in the browser's tab, as long as the screen is there. */
export function useTitle(title: string | undefined) {
  const { t } = useTranslation()
  useEffect(() => {
    document.title = title ? `${title} · ${t('app')}` : t('app')
  }, [title, t])
}
