import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';
import vuetify from 'vite-plugin-vuetify';

export default defineConfig({
  root: import.meta.dirname,
  // a line break between two words' elements is a blank, as in HTML
  plugins: [vue({ template: { compilerOptions: { whitespace: 'preserve' } } }), vuetify({ autoImport: true, styles: 'none' })],
  resolve: { conditions: ['source', 'module', 'browser', 'import', 'default'] },
  optimizeDeps: { exclude: ['vuetify'] },
  build: { target: 'es2022', chunkSizeWarningLimit: 900, reportCompressedSize: true },
  server: { proxy: { '/api': process.env.FADENWEG_API ?? 'http://127.0.0.1:7350' } },
});
