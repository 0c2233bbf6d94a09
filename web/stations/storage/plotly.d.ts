// The small bundle has the same interface as the whole library.
declare module 'plotly.js-basic-dist-min' {
  import Plotly from 'plotly.js'
  export default Plotly
}
