import '@fontsource/ibm-plex-sans/400.css';
import '@fontsource/ibm-plex-sans/500.css';
import '@fontsource/ibm-plex-sans/600.css';
import './styles/element';
import './styles/tokens.css';
import './styles/base.css';
import { createPinia } from 'pinia';
import { createApp } from 'vue';
import App from './App.vue';
import { router } from './router';
import { keepPage } from './away';
import { showTheme } from './theme';

const KEEP_AFTER_MS = 4000;

const app = createApp(App).use(createPinia());
showTheme();
app.use(router).mount('#app');
// What is wanted first comes first.
setTimeout(keepPage, KEEP_AFTER_MS);
