/**
 * Has the browser keep the page itself, so that it opens without network once it
 * has been open. What the server answers is never kept. A new version is taken
 * at the next load.
 */
export function keepShell() {
  if (!('serviceWorker' in navigator) || import.meta.env.DEV) return
  addEventListener('load', () => void navigator.serviceWorker.register('/shell.js').catch(() => undefined))
}
