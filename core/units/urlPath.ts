const PLAIN = /[A-Za-z0-9._~!$&'()*+,;=:@/-]/

/**
 * Bytes of a path as the path of a URL: every byte that may not stand there by itself is written `%XX`, so that no name
 * is lost, whatever its bytes. Source: RFC 3986, section 3.3. `caf\xe9 1.MP4` is `caf%E9%201.MP4`.
 */
export const urlPath = (bytes: Uint8Array): string =>
  [...bytes]
    .map((byte) => {
      const sign = String.fromCharCode(byte)
      return byte < 128 && PLAIN.test(sign) ? sign : `%${byte.toString(16).toUpperCase().padStart(2, '0')}`
    })
    .join('')
