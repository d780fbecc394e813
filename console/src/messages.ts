import { createI18n } from 'vue-i18n'
import en from './messages.en'

/** The console's words; every language has the same keys as English. */
export const messages = createI18n({ legacy: false, locale: 'en', fallbackLocale: 'en', messages: { en } })
