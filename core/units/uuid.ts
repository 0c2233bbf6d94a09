const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i

/** Whether a text is a UUID as it is written. Source: RFC 9562, section 4. */
export const isUuid = (text: string): boolean => UUID.test(text)
