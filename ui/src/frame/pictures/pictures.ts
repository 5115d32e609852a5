/** Where an uploaded picture is fetched from. */
export const pictureURL = (id: string) => `/api/pictures/${id}`
