/** Where a picture is shown from, by the hash of its content. */
export const addressOf = (hash: string): string => `/api/photos/${hash}`
