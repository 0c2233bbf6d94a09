export type Theme = 'day' | 'night'

const KEY = 'yendra-theme'

/** What the person chose last, or what their system asks for. */
export function savedTheme(): Theme {
  const saved = localStorage.getItem(KEY)
  if (saved === 'day' || saved === 'night') return saved
  return matchMedia('(prefers-color-scheme: dark)').matches ? 'night' : 'day'
}

export function applyTheme(theme: Theme): void {
  document.documentElement.dataset.theme = theme
}

/** Changes to the other theme and remembers it. */
export function switchTheme(): void {
  const next: Theme = document.documentElement.dataset.theme === 'night' ? 'day' : 'night'
  localStorage.setItem(KEY, next)
  applyTheme(next)
  window.dispatchEvent(new Event('yendra-theme'))
}
