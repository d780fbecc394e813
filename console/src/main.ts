import '@fontsource-variable/inter'
import 'ant-design-vue/dist/reset.css'
import './style.css'
import { VueQueryPlugin } from '@tanstack/vue-query'
import { createApp } from 'vue'
import App from './App.vue'
import { router } from './router'
import { keepWidgetsAccessible } from './composables/widgets'

createApp(App)
  .use(router)
  .use(VueQueryPlugin, {
    queryClientConfig: {
      defaultOptions: { queries: { retry: false, refetchOnWindowFocus: false, staleTime: 2000 } },
    },
  })
  .mount('#app')
keepWidgetsAccessible(document.body)
