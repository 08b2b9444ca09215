/** A connection for events as a browser makes it, told what to do by the test. */
export class Connection extends EventTarget {
  static readonly CLOSED = 2
  static all: Connection[] = []
  readyState = 1
  constructor(readonly path: string) {
    super()
    Connection.all.push(this)
  }
  close() {
    this.readyState = Connection.CLOSED
  }
  tell(name: string, data = '') {
    this.dispatchEvent(new MessageEvent(name, { data }))
  }
  refuse() {
    this.close()
    this.dispatchEvent(new Event('error'))
  }
}
