/** A picture of this folder as a data address, put in when it is built. */
declare module '*.jpg?inline' {
  const address: string
  export default address
}
