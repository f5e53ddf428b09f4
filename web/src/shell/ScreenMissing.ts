/** The code of a screen did not come: the line is down, or the server has a newer version by now. */
export class ScreenMissing extends Error {
  constructor(cause: unknown) {
    super('the code of a screen did not come', { cause })
  }
}
