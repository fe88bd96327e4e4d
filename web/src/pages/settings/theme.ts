export type Theme = 'light' | 'dark' | 'system'

const STORED = 'gorvant.theme'

export function storedTheme(): Theme {
  const stored = localStorage.getItem(STORED)
  return stored === 'light' || stored === 'dark' ? stored : 'system'
}

export function applyTheme(theme: Theme) {
  const dark = theme === 'dark' || (theme === 'system' && matchMedia('(prefers-color-scheme: dark)').matches)
  document.documentElement.dataset.theme = dark ? 'dark' : 'light'
}

export function storeTheme(theme: Theme) {
  localStorage.setItem(STORED, theme)
  applyTheme(theme)
}

/** Paper is light, whatever the screen is. */
export function printLight() {
  window.addEventListener('beforeprint', () => applyTheme('light'))
  window.addEventListener('afterprint', () => applyTheme(storedTheme()))
}
