/** Where a request comes from, as far as a sign-in concerns it. */
export interface Visitor {
  address: string
  /** The program, in its own words. */
  agent: string
  /** Whether it comes from this machine itself, by the address that it asks and the one it comes from. */
  isLocal: boolean
  /** The secret of the shared phone that it comes from. */
  phone: string | undefined
}

/** What an act of signing in gives: the secret of a new sign-in, and whose it is. */
export interface SignedIn {
  personId: string
  token: string
}
