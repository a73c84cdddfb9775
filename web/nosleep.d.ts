declare module 'nosleep.js' {
  export default class NoSleep {
    readonly isEnabled: boolean
    enable(): Promise<unknown>
    disable(): void
  }
}
