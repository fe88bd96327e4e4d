import { createApp } from 'vue'
import '@fontsource-variable/atkinson-hyperlegible-next/wght.css'
import '@fontsource-variable/atkinson-hyperlegible-mono/wght.css'
import App from '@/App.vue'
import { applyTheme, printLight, storedTheme } from '@/pages/settings/theme'
import { router } from '@/router'
import { bringEngine } from '@/shared/kept/wired'
import { keepShell } from '@/shared/kept/shell'
import { words } from '@/words'
import '@/tokens.css'
import '@/base.css'
import '@/element.css'

applyTheme(storedTheme())
printLight()
createApp(App).use(router).use(words).mount('#app')
keepShell()
bringEngine()
