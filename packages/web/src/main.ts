import '@fontsource-variable/source-sans-3/wght.css';
import '@fontsource/jetbrains-mono/latin-400.css';
import '@fontsource/jetbrains-mono/latin-700.css';
import './theme/base.css';
import { createPinia } from 'pinia';
import { createApp } from 'vue';
import App from './App.vue';
import { router } from './router.ts';
import { vuetify } from './theme/vuetify.ts';

createApp(App).use(createPinia()).use(router).use(vuetify).mount('#app');
