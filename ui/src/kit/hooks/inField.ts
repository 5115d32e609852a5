/** Whether keys that are pressed there are meant for a field, or a window. */
export const inField = (at: EventTarget | null) =>
  at instanceof HTMLElement && at.closest('input, textarea, select, [contenteditable], [role=dialog]') !== null
