declare module 'plotly.js-basic-dist-min' {
  export { default } from 'plotly.js'
}
