/** Without a made server there is none: what a test leaves running asks nobody. */
globalThis.fetch = () => Promise.reject(new TypeError('no server'))
