/// <reference types="vite/client" />
declare module '@fontsource-variable/bricolage-grotesque'
declare module '@fontsource-variable/atkinson-hyperlegible-next'
/** What the linter takes a component for, which it cannot read; the type check reads the component itself. */
declare module '*.vue' {
  import type { DefineComponent } from 'vue'
  const component: DefineComponent
  export default component
}
