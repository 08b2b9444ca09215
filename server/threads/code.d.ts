/** Made by nuxt.config: the program of the thread, bundled, as text. */
declare module '#thread-code' {
  const code: string
  export default code
}
