/** An id among the bytes of a code. */
export const bytesOf = (uuid: string) => Buffer.from(uuid.replaceAll('-', ''), 'hex')
export const uuidOf = (bytes: Buffer) =>
  bytes.toString('hex').replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5')
