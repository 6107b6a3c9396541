import type { View } from '../store/view.ts'

const darkSystem = matchMedia('(prefers-color-scheme: dark)')

export function applyTheme(theme: View['theme']): void {
  const isDark = theme === 'dark' || (theme === 'system' && darkSystem.matches)
  document.documentElement.dataset.theme = isDark ? 'night' : 'day'
}
